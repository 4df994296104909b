// Forms that go through the queue. They are marked in the page, and heard from there: one that is
// replaced leaves nothing behind.
//
//   <form data-queue="day"      what an entry is called
//     data-says="on distance"   fields that tell one entry from another
//     data-once                 an answer takes the place of one that waits, and stays in sight; by the form's id
//     data-clears="note"        fields that are empty after an entry; without it, all of them
//     data-swaps="strip walk">  ids of what is new once an entry is taken; without it, strip, bench and main
//
// A line .unsent of the page says how many of it wait (data-one, data-many), a list .refused what was not taken.
import { drop, entries, freshID, keep, post, send, signedInHere } from './queue.js';
import { drawn, handOn, replace, touched } from './page.js';
import { linkButton, some } from './words.js';

const here = (entry) => entry.page.split('?')[0] === location.pathname;
const formOf = (entry) => (entry.key && document.getElementById(entry.form))
  || [...document.querySelectorAll('form[data-queue]')].find((f) => f.getAttribute('action') === entry.action && !f.hasAttribute('data-once'));

// What an entry says, in a line.
const saysOf = (form, fields) => (form.dataset.says || '').split(' ').map((name) => {
  const [, value] = fields.find(([key]) => key === name) || ['', ''], field = form.querySelector('[name="' + name + '"]');
  const unit = field && field.id && form.querySelector('[for="' + field.id + '"] .unit');
  return value && unit && !/[a-z]/i.test(value) ? value + ' ' + unit.textContent : value;
}).filter(Boolean).join(', ');

// A form as an entry, with an id of this device.
const entryOf = (form, button) => {
  const body = new FormData(form, button), id = freshID();
  body.set('id', id);
  if (body.has('save')) body.set('save', id);
  const fields = [...body], told = form.dataset.tells || (button && button.dataset.tells);
  const action = form.getAttribute('action'), at = form.getAttribute('id') || ''; // a field of that name hides the property
  return { id, key: form.hasAttribute('data-once') ? action + ' ' + at : '', form: at, action, page: location.pathname + location.search,
    who: document.documentElement.dataset.who, name: form.dataset.queue, refused: '',
    says: [told, saysOf(form, fields)].filter(Boolean).join(', '), fields };
};

// The button that was pressed stands pressed, alone in its group; one that is by itself turns.
const press = (form, name, value) => {
  const button = [...form.querySelectorAll('button[aria-pressed]')].find((b) => b.name === name && b.value === value);
  if (!button) return;
  (button.closest('li') || form).classList.add('is-unsent');
  const group = button.closest('[role=group]');
  if (group) group.querySelectorAll('[aria-pressed]').forEach((b) => b.setAttribute('aria-pressed', String(b === button)));
  else {
    button.setAttribute('aria-pressed', String(value === 'yes'));
    button.value = value === 'yes' ? 'no' : 'yes';
  }
};

// Puts what an entry says into a form.
const enter = (form, fields) => fields.forEach(([name, value]) => {
  const field = form.querySelector('[name="' + CSS.escape(name) + '"]:not(button)');
  if (field && field.type === 'checkbox') field.checked = true;
  else if (field) field.value = value;
});

const clear = (form) => {
  if (form.hasAttribute('data-once')) return;
  if (!form.dataset.clears) return form.reset();
  form.dataset.clears.split(' ').forEach((name) => { form.elements[name].value = ''; });
};

// Says something at a form; it stays until the next is written.
const say = (form, words) => {
  const line = form.querySelector('.unsent') || document.querySelector('main .unsent');
  line.hidden = false;
  line.dataset.said = '';
  line.textContent = words;
};

const write = async (form, button) => {
  if (!signedInHere()) return say(form, 'You are signed out in this browser. Sign in again in another tab: what is typed here stays.');
  const entry = entryOf(form, button), mends = Number(form.dataset.mends) || 0;
  document.querySelectorAll('.unsent').forEach((line) => { delete line.dataset.said; });
  if (button) press(form, button.name, button.value);
  delete form.dataset.mends;
  clear(form); // at once: the next may be typed already
  try {
    return await keep(entry, mends);
  } catch (error) {
    return withoutKeeping(form, entry, error.name === 'QuotaExceededError' ? 'There is no room left on this device to keep it' : 'This browser keeps nothing for this site');
  }
};

// Sends an entry that the device does not keep, or gives it back to its form.
const withoutKeeping = async (form, entry, why) => {
  const reply = await post(entry);
  if (reply.state === 'taken') {
    await show(entry, reply);
    return say(formOf(entry) || form, why + '. It was sent at once; without a network that is not possible.');
  }
  enter(form, entry.fields);
  return say(form, reply.state === 'refused' ? 'Not taken: ' + reply.why
    : why + ', and the server does not answer. Nothing was written down: leave it in the form until it does.');
};

document.addEventListener('submit', (event) => {
  const form = event.target;
  if (event.defaultPrevented || !form.matches('[data-queue]')) return;
  event.preventDefault();
  write(form, event.submitter);
});

// What is typed after an answer goes with it.
document.addEventListener('change', (event) => {
  const form = event.target.closest('[data-queue][data-once]'), button = form && form.querySelector('[aria-pressed=true]');
  if (button && event.target.matches('input:not([type=hidden]), select, textarea')) write(form, button);
});

// Shows what the server made of an entry that was written on this page, beside what is typed meanwhile.
const show = async (entry, { page, url }) => {
  if (!here(entry)) return;
  if (url.pathname !== location.pathname) { // what was begun here goes on there
    if (!touched() || entry.key) location.assign(url);
    return;
  }
  if (!page) { // of another version: all of it is new
    if (!touched()) location.reload();
    return;
  }
  const form = formOf(entry), swaps = form && form.dataset.swaps;
  const newer = entry.key && (await entries()).some((e) => e.key === entry.key);
  const parts = swaps ? ['strip', 'bench', ...swaps.split(' ')] : ['strip', ...touched() ? drawn() : ['bench', 'main']];
  const typing = form && entry.key && form.contains(document.activeElement) && document.activeElement.matches('input, textarea');
  if (typing) form.classList.remove('is-unsent');
  replace(page, parts.filter((id) => id !== entry.form || !(newer || typing)));
};

// Why an entry was not taken, and what can be done with it.
const refusedRow = (entry, form) => {
  const row = document.createElement('li');
  row.textContent = (entry.says || 'A ' + entry.name) + ' was not taken: ' + entry.refused + ' ';
  const mend = linkButton('Mend it', () => {
    enter(form, entry.fields);
    form.dataset.mends = entry.n;
    stand();
    handOn(form.querySelector('.form-control'));
  });
  row.append(...form && form.querySelector('.form-control') ? [mend, ' '] : [], linkButton('Throw it away', () => drop(entry.n)));
  return row;
};

// Says in its form why an answer was not taken. Answering anew mends it.
const complain = (form, entry) => {
  const line = document.createElement('p');
  line.className = 'not-taken error';
  line.append('Not taken: ' + entry.refused + ' ', linkButton('Throw it away', async () => {
    await drop(entry.n);
    location.reload();
  }));
  (form.querySelector('h3') || form.lastElementChild).after(line);
};

let standing = 0; // of those that look at once the last one shows what there is

// Shows what of this page waits and what was refused.
const stand = async () => {
  const turn = ++standing;
  let list = [];
  try {
    list = (await entries()).filter(here);
  } catch (error) { /* said once something is written */ }
  if (turn !== standing) return;
  document.querySelectorAll('.not-taken').forEach((line) => line.remove());
  const waiting = list.filter((e) => !e.refused), refused = list.filter((e) => e.refused);
  list.forEach((entry) => {
    const form = formOf(entry);
    if (!form) return;
    if (entry.key && !form.contains(document.activeElement)) enter(form, entry.fields);
    if (entry.key) form.classList.add('is-unsent');
    entry.fields.forEach(([name, value]) => press(form, name, value));
    if (entry.key && entry.refused) complain(form, entry);
  });
  document.querySelectorAll('main .unsent:not([data-said])').forEach((line) => {
    const n = waiting.length;
    line.hidden = n === 0;
    line.textContent = some(n, line.dataset.one + ' is', line.dataset.many + ' are') + ' kept on this device and sent when the server answers.';
  });
  document.querySelectorAll('main .refused').forEach((rows) => {
    const mine = refused.filter((e) => !e.key && !document.querySelector('[data-mends="' + e.n + '"]'));
    rows.hidden = mine.length === 0;
    rows.replaceChildren(...mine.map((e) => refusedRow(e, formOf(e))));
  });
};

// A page that was kept, or has stood open, asks for today all the same.
const today = () => document.querySelectorAll('[data-queue] [data-today]').forEach((field) => {
  if (field.value !== field.defaultValue) return;
  const now = new Date(), two = (n) => String(n).padStart(2, '0');
  field.value = field.defaultValue = [now.getFullYear(), two(now.getMonth() + 1), two(now.getDate())].join('-');
});

document.addEventListener('visibilitychange', today);
document.addEventListener('queue', stand);
document.addEventListener('replaced', () => {
  today();
  stand();
});
document.addEventListener('queue-taken', ({ detail }) => show(detail.entry, detail.reply));
today();
stand();
send();
