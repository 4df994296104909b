// What is written down on this device goes to the server once it answers: once, in the order in
// which it was written, from whichever page of the site is open. It is in the browser's database,
// so that it outlasts the browser, and each rider's is their own.
//
// An entry is { n, who, id, key, form, action, page, name, says, fields, refused }: n is its place in the order, id
// the one by which the server knows it, key what a later one takes the place of, page and form where it was written.

import { sameVersion } from './page.js';

// A word for the page when something of the queue has changed, and when the server has taken an entry.
const changed = () => document.dispatchEvent(new CustomEvent('queue'));
const taken = (entry, reply) => document.dispatchEvent(new CustomEvent('queue-taken', { detail: { entry, reply } }));

const cookie = (name) => (document.cookie.match(new RegExp('(?:^|; )(?:__Host-)?' + name + '=([^;]*)')) || [])[1] || '';

// Who this page was made for, and who is signed in by now.
const pageWho = () => document.documentElement.dataset.who || '';
export const signedInHere = () => pageWho() !== '' && pageWho() === cookie('who');

const tabs = 'BroadcastChannel' in window ? new BroadcastChannel('mule') : null;
if (tabs) tabs.onmessage = () => changed();
const everywhere = () => {
  changed();
  if (tabs) tabs.postMessage('queue');
};

let anew = false; // there was no database yet, or not any more

const open = () => new Promise((done, failed) => {
  const asked = indexedDB.open('mule', 1);
  asked.onupgradeneeded = () => {
    anew = true;
    asked.result.createObjectStore('entries', { keyPath: 'n', autoIncrement: true });
  };
  asked.onsuccess = () => done(asked.result);
  asked.onerror = () => failed(asked.error);
});

// Does something with the entries, all of it or nothing; it is on the disk when this is done.
const within = async (mode, act) => {
  const base = await open();
  try {
    return await new Promise((done, failed) => {
      const step = base.transaction('entries', mode, { durability: 'strict' }), asked = act(step.objectStore('entries'));
      step.oncomplete = () => done(asked && asked.result);
      step.onabort = () => failed(step.error);
    });
  } finally {
    base.close();
  }
};

// How many wait is noted outside of the database too: a browser that has thrown it away is found out.
const note = (n) => {
  document.cookie = 'waits=' + pageWho() + '.' + n + '; path=/; SameSite=Lax; max-age=' + (n ? 31536000 : 0);
};
const noted = () => {
  const [who, n] = cookie('waits').split('.');
  return who === pageWho() ? Number(n) : 0;
};

// The entries of the page's rider, in order.
export const entries = async () => {
  if (!pageWho()) return [];
  return (await within('readonly', (all) => all.getAll())).filter((e) => e.who === pageWho());
};

// How many were noted in a database that is not there any more. Said once.
export const lost = async () => {
  const n = (await entries()).length, gone = anew ? noted() : 0;
  note(n);
  return gone;
};

// Changes the entries, and what is noted of their number.
const change = async (act) => {
  await within('readwrite', act);
  note((await entries()).length);
  everywhere();
};

// Keeps an entry until the server has it. What waits under its key gives way, and so does one that
// it mends. Fails where the device does not take it.
export const keep = async (entry, mends) => {
  const gone = (await entries()).filter((e) => e.n === mends || (entry.key && e.key === entry.key));
  await change((all) => {
    gone.forEach((e) => all.delete(e.n));
    all.add(entry);
  });
  // One who has something to lose asks the browser not to clear it when it is short of room.
  if (navigator.storage && navigator.storage.persist) navigator.storage.persist().catch(() => {});
  send();
};

export const drop = (n) => change((all) => all.delete(n));

// Marks an entry as refused; one that has been thrown away meanwhile stays away.
const refuse = (entry, why) => change((all) => {
  const asked = all.get(entry.n);
  asked.onsuccess = () => { if (asked.result) all.put({ ...asked.result, refused: why }); };
});

// An id as long as the server's own, in the same letters.
export const freshID = () => {
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';
  return [...crypto.getRandomValues(new Uint8Array(26))].map((b) => letters[b % 32]).join('');
};

// Sends an entry. Only an answer that names its id has taken it; one that says what is wrong has
// refused it; whatever else comes, of a network that wants one to sign in first too, it is sent again later.
// The page is what there is to see then, at url; none where it is another version's.
export const post = async (entry) => {
  let reply, text;
  try {
    reply = await fetch(entry.action, { method: 'POST', headers: { 'Mule-Who': entry.who }, body: new URLSearchParams(entry.fields), signal: AbortSignal.timeout(30000) });
    text = await reply.text();
  } catch (error) {
    return { state: 'later' };
  }
  if (reply.headers.get('Mule-Who') !== entry.who || reply.status >= 500 || reply.status === 429) return { state: 'later' };
  const page = new DOMParser().parseFromString(text, 'text/html');
  const url = new URL(reply.url);
  if (reply.ok) return { state: url.searchParams.get('kept') === entry.id ? 'taken' : 'later', url, page: sameVersion(reply) ? page : null };
  const why = page.querySelector('.error') || page.querySelector('.form-note') || page.querySelector('h1');
  return { state: 'refused', why: why ? why.textContent.trim().replace(/\s+/g, ' ') : 'it cannot be used' };
};

let again = 0; // the timer before another attempt
let pause = 0; // s until then

const next = async () => (signedInHere() ? (await entries()).find((e) => !e.refused) : null);

const sendAll = async () => {
  for (let entry = await next(); entry; entry = await next()) {
    const reply = await post(entry);
    if (reply.state === 'later') return false;
    pause = 0;
    if (reply.state === 'refused') await refuse(entry, reply.why);
    else await drop(entry.n);
    if (reply.state === 'taken') taken(entry, reply);
  }
  return true;
};

let sending = false;

// Sends what waits, one page at a time where the browser can tell its pages apart from each other:
// elsewhere two may send the same, which the server keeps once.
export const send = async () => {
  clearTimeout(again);
  if (sending) return;
  sending = true;
  let done = false;
  try {
    done = await (navigator.locks ? navigator.locks.request('mule', sendAll) : sendAll());
  } catch (error) {
    return; // the device gives nothing out: that is said where something is written
  } finally {
    sending = false;
  }
  if (done && !await next()) return;
  pause = done ? 0 : Math.min(pause ? pause * 2 : 2, 20);
  again = setTimeout(send, pause * 1000);
};

const atOnce = () => {
  pause = 0;
  if (document.visibilityState === 'visible') send();
};
window.addEventListener('online', atOnce);
document.addEventListener('visibilitychange', atOnce);

// Nothing of the page's rider stays on this device, of anybody's where the page is nobody's. Tells whether something of
// another rider's still waits here.
export const forget = async () => {
  [localStorage, sessionStorage].forEach((kept) => kept.clear());
  if ('caches' in window) await Promise.all((await caches.keys()).map((name) => caches.delete(name)));
  const mine = (e) => !pageWho() || e.who === pageWho();
  let others = false;
  try {
    const all = await within('readonly', (list) => list.getAll());
    others = !all.every(mine);
    await within('readwrite', (list) => all.filter(mine).forEach((e) => list.delete(e.n)));
  } catch (error) { /* a browser that gives nothing out keeps nothing */ }
  note(0);
  everywhere();
  return others;
};
