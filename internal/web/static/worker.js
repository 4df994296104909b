// Pages that are needed where there is no network stay on this device once they were opened, with
// all that they load. The server says which: by a header that holds the address under which a page
// is kept. What is kept is one rider's, and goes when another comes or nobody is signed in.
//
// The server puts VERSION and FILES before the first line: the hash under which its assets stand,
// and which of them pages load.
/* global VERSION, FILES */
const ASSETS = 'assets', PAGES = 'pages ';
const PATIENCE = 8000; // ms that a page that is kept waits for a newer one
const FRESH = 3600000; // ms for which a kept page is not asked for again
const MOST = 120; // pages of a rider

const pagesOf = (who) => PAGES + who;
const header = (answer, name) => answer.headers.get('Mule-' + name) || '';

// Tells every page of this site something.
const tell = async (what) => (await self.clients.matchAll()).forEach((page) => page.postMessage(what));

self.addEventListener('install', (event) => event.waitUntil((async () => {
  await (await caches.open(ASSETS)).addAll(FILES);
  await self.skipWaiting(); // every page names its own version's assets, so none is left with another's
})()));

self.addEventListener('activate', (event) => event.waitUntil((async () => {
  await self.clients.claim();
  await tidy();
})()));

// Throws away the assets of versions of which no page is kept any more.
const tidy = async () => {
  const used = new Set([VERSION]);
  for (const name of await caches.keys()) {
    if (!name.startsWith(PAGES)) continue;
    for (const page of await (await caches.open(name)).matchAll()) used.add(header(page, 'Version'));
  }
  const assets = await caches.open(ASSETS);
  for (const request of await assets.keys()) {
    if (!used.has(new URL(request.url).pathname.split('/')[2])) await assets.delete(request);
  }
};

const asset = async (request) => {
  const assets = await caches.open(ASSETS), kept = await assets.match(request);
  if (kept) return kept;
  const answer = await fetch(request);
  if (answer.ok) assets.put(request, answer.clone()).catch(() => {}); // without room it is asked for again
  return answer;
};

// Who a page was made for is who is signed in: whatever is kept of anybody else goes.
const onlyOf = async (who) => {
  for (const name of await caches.keys()) {
    if (name.startsWith(PAGES) && name !== pagesOf(who)) await caches.delete(name);
  }
};

// Keeps a page that the server lets be kept, with the moment in it, and the assets that it names.
const keep = async (answer) => {
  const who = header(answer, 'Who'), at = header(answer, 'Keep');
  if (who) await onlyOf(who);
  if (!at || answer.status !== 200 || who === 'nobody') return;
  const text = (await answer.text()).replace('<html ', '<html data-kept="' + new Date().toISOString() + '" ');
  const headers = new Headers(answer.headers);
  ['Content-Encoding', 'Content-Length'].forEach((name) => headers.delete(name));
  headers.set('Mule-Kept', String(Date.now()));
  try {
    const assets = await caches.open(ASSETS), pages = await caches.open(pagesOf(who));
    for (const [, file] of text.matchAll(/(?:href|src)="(\/assets\/[^"]+)"/g)) {
      if (!await assets.match(file)) await assets.add(file);
    }
    await pages.put(at, new Response(text, { headers }));
    const all = await pages.keys();
    await Promise.all(all.slice(0, Math.max(0, all.length - MOST)).map((old) => pages.delete(old)));
    await tell({ kept: at });
  } catch (error) {
    await tell({ full: error.name === 'QuotaExceededError' });
  }
};

// The copy of a page: of those with its path the one whose query is most like it, the latest of several.
const copy = async (url) => {
  let best = null, most = -1;
  for (const name of (await caches.keys()).filter((n) => n.startsWith(PAGES))) {
    const pages = await caches.open(name);
    for (const request of await pages.keys()) {
      const at = new URL(request.url);
      if (at.pathname !== url.pathname) continue;
      const like = [...at.searchParams].filter(([key, value]) => url.searchParams.get(key) === value).length;
      if (like >= most) [best, most] = [await pages.match(request), like];
    }
  }
  return best;
};

const wait = (ms) => new Promise((done) => { setTimeout(done, ms); });

// Where a rider comes in, which is no page to be kept: without a server, what there is stands there.
const DOORS = ['/', '/garage'];

// A page as the server has it now; where it does not answer, or not for long, as it is kept.
const page = async (event) => {
  const url = new URL(event.request.url), kept = await copy(DOORS.includes(url.pathname) ? new URL('/device', url) : url);
  const now = fetch(event.request).then((answer) => {
    event.waitUntil(keep(answer.clone()));
    return kept && answer.status >= 502 && answer.status <= 504 ? kept : answer;
  }).catch(() => kept || away());
  return kept && !DOORS.includes(url.pathname) ? Promise.race([now, wait(PATIENCE).then(() => kept)]) : now;
};

const sent = (request) => fetch(request).catch(() => away('<p>What you sent has not arrived, and nothing was changed. Go back: what you typed is still there. Send it again when the '
  + 'server answers.</p>'));

// What there is to say of a page that is not kept.
const away = (more) => new Response(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>No network · Valiant Mule</title>
<link rel="stylesheet" href="/assets/${VERSION}/bootstrap.min.css"><link rel="stylesheet" href="/assets/${VERSION}/mule.css"></head>
<body><main id="main" class="sheet"><header class="page-head"><h1>The server does not answer</h1></header>
${more || '<p>This page is not on this device. Those are that were opened here once, and are for use on the way.</p>'}
<p><a class="act" href="/device">What is on this device</a></p></main></body></html>`,
{ status: 503, headers: { 'Content-Type': 'text/html; charset=utf-8' } });

self.addEventListener('fetch', (event) => {
  const { request } = event, url = new URL(request.url);
  if (url.origin !== self.location.origin) return;
  if (url.pathname.startsWith('/assets/')) event.respondWith(asset(request));
  else if (request.mode === 'navigate') event.respondWith(request.method === 'GET' ? page(event) : sent(request));
});

const fresh = (kept) => kept && header(kept, 'Version') === VERSION && Date.now() - Number(header(kept, 'Kept')) < FRESH;

// Fetches pages to be kept, and those of what is kept that are old or of another version; one
// that is not there any more goes.
const renew = async (who, wanted) => {
  const pages = await caches.open(pagesOf(who)), list = new Set();
  for (const at of wanted) {
    if (!fresh(await copy(new URL(at, self.location.origin)))) list.add(at);
  }
  for (const kept of await pages.keys()) {
    const at = new URL(kept.url);
    if (!fresh(await pages.match(kept))) list.add(at.pathname + at.search);
  }
  for (const at of list) {
    const answer = await fetch(at, { headers: { 'Mule-Who': who } });
    if (answer.status === 404 || (answer.redirected && header(answer, 'Who') === who)) await pages.delete(at);
    else await keep(answer);
  }
  await tidy();
};

self.addEventListener('message', (event) => {
  const { who, keep: wanted } = event.data;
  event.waitUntil(renew(who, wanted).catch(() => tell({ away: true }))); // what is kept stays as it is
});
