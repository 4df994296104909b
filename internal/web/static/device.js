// What of a rider's is on this device: pages that are kept, what waits to be sent.
import { drop, entries, lost, signedInHere } from './queue.js';
import { linkButton, some } from './words.js';
import { touched } from './page.js';

const root = document.documentElement;
const worker = 'serviceWorker' in navigator ? navigator.serviceWorker : null;

const moment = (when) => new Date(when).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

// The line under the head of each page. What is said stays until something else is to be said there.
const line = document.getElementById('device');
const told = {};
const tell = (about, ...words) => {
  told[about] = words;
  const all = Object.values(told).filter((list) => list.length > 0);
  line.hidden = all.length === 0;
  line.replaceChildren(...all.map((list) => {
    const sentence = document.createElement('span');
    sentence.append(...list);
    return sentence;
  }));
};

const link = (words, href) => Object.assign(document.createElement('a'), { textContent: words, href });

let counting = 0; // of those that count at once the last one says it

const count = async () => {
  const turn = ++counting;
  let list;
  try {
    list = await entries();
  } catch (error) {
    tell('queue', 'This browser keeps nothing for this site: what you write down is sent at once, and without a network not at all.');
    return;
  }
  if (turn !== counting) return;
  const refused = list.filter((e) => e.refused).length, waiting = list.length - refused;
  const words = [];
  if (waiting) words.push(some(waiting, 'thing waits', 'things wait') + ' on this device for the server. ');
  if (refused) words.push(some(refused, 'was', 'were') + ' not taken. ');
  if (words.length) words.push(link('Look', '/device'));
  tell('queue', ...words);
  listWaiting(list);
};

// What the device's own page shows of the queue.
const listWaiting = (list) => {
  const rows = document.getElementById('device-waits');
  if (!rows) return;
  rows.hidden = list.length === 0;
  rows.replaceChildren(...list.map((e) => {
    const row = document.createElement('li'), name = document.createElement('b');
    row.classList.toggle('is-waiting', !e.refused);
    name.textContent = e.name;
    row.append(name, (e.says ? ': ' + e.says : '') + '. ' + (e.refused ? 'Not taken: ' + e.refused + '. ' : 'Waits. '),
      link(e.refused ? 'Mend it' : 'Its page', e.page), ' ', linkButton('Throw it away', () => drop(e.n)));
    return row;
  }));
};

// What the device's own page shows of pages that are kept.
const listPages = async () => {
  const rows = [...document.querySelectorAll('[data-kept-at]')];
  if (rows.length === 0) return;
  const state = document.getElementById('device-state');
  if (!worker) {
    state.textContent = window.isSecureContext
      ? 'This browser keeps no pages: without a network they cannot be opened.'
      : 'This site came over plain http. There a browser keeps no pages for use without a network, and clears nothing at a server’s word: come by https. '
        + 'What you write down is kept all the same, and signing out here clears it.';
    return;
  }
  const pages = await caches.open('pages ' + root.dataset.who);
  await Promise.all(rows.map(async (row) => {
    const page = await pages.match(row.dataset.keptAt, { ignoreSearch: true });
    row.textContent = page ? 'kept ' + moment(Number(page.headers.get('Mule-Kept'))) : 'not on this device';
    row.classList.toggle('is-kept', Boolean(page));
  }));
  document.querySelectorAll('[data-trip]').forEach((trip) => {
    const all = trip.querySelectorAll('[data-kept-at]').length, here = trip.querySelectorAll('.is-kept').length;
    trip.querySelector('[data-kept-of]').textContent = here + ' of ' + all + ' here';
  });
  const { usage, quota } = await navigator.storage.estimate(), holds = await navigator.storage.persisted();
  state.textContent = Math.max(1, Math.round(usage / 1e6)) + ' MB of the ' + (quota / 1e9).toFixed(1) + ' GB that the browser gives. '
    + (holds ? 'It is cleared only by you.' : 'The browser may clear it when the device is short of room, or when you have not been here for some weeks.');
};

// Has the worker keep pages; what is kept and old it renews by itself.
const renew = async (pages) => {
  const { active } = await worker.ready;
  active.postMessage({ who: root.dataset.who, keep: pages });
};

document.addEventListener('click', (event) => {
  const take = event.target.closest('[data-take]');
  if (!take || !worker) return;
  take.disabled = true;
  renew([...take.closest('[data-trip]').querySelectorAll('[data-kept-at]')].map((row) => row.dataset.keptAt));
});

// Pages that were asked for by hand did not come.
const notTaken = () => document.querySelectorAll('[data-take]:disabled').forEach((take) => {
  take.disabled = false;
  document.getElementById('device-state').textContent = 'The server does not answer: what is not here yet could not be kept.';
});

const start = async () => {
  await worker.register('/worker.js');
  // A page that was opened before there was a worker did not pass it.
  await renew('away' in root.dataset ? ['/device', location.pathname + location.search] : ['/device']);
};

if (worker && signedInHere()) {
  worker.addEventListener('message', ({ data }) => {
    if (data.kept) listPages();
    else if (data.away) notTaken();
    else tell('room', data.full ? 'There is no room left on this device: this page is not there without a network.' : 'This page could not be kept on this device.');
  });
  start().catch(() => {}); // without a network what is there goes on
}

if (root.dataset.kept) {
  tell('kept', 'As kept on this device ' + moment(root.dataset.kept) + ': the server does not answer. ', linkButton('Try again', () => location.reload()));
}

// A page of who has signed out in another tab goes, unless something is typed in it.
const gone = () => {
  if (!root.dataset.who || signedInHere()) return;
  if (touched()) tell('out', 'You are signed out in this browser. What is typed here stays: sign in again in another tab.');
  else {
    root.hidden = true;
    location.replace('/sign-in');
  }
};
document.addEventListener('visibilitychange', gone);
window.addEventListener('focus', gone);

document.addEventListener('queue', count);
document.addEventListener('queue-taken', () => tell('kept')); // the server answers again

const begin = async () => {
  const n = await lost();
  if (n) tell('lost', some(n, 'thing that waited here for the server is', 'things that waited here for the server are') + ' gone: this browser has thrown its storage away.');
};
begin().catch(() => {});
count();
listPages();
