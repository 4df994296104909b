import { entries, forget } from './queue.js';
import { some } from './words.js';

// Signing out takes along what the device holds of the rider's, and says before what of it
// nobody has yet.
const ask = (form, waits) => {
  const dialog = document.createElement('dialog'), list = document.createElement('ul'), words = document.createElement('p'), foot = document.createElement('div');
  dialog.className = 'dialog';
  dialog.setAttribute('aria-label', 'Before you go');
  words.textContent = some(waits.length, 'thing that is written down on this device has', 'things that are written down on this device have') + ' not reached the server yet. Signing out throws that away.';
  list.append(...waits.map((e) => Object.assign(document.createElement('li'), { textContent: [e.name, e.says].filter(Boolean).join(': ') })));
  const button = (text, kind, act) => {
    const made = Object.assign(document.createElement('button'), { type: 'button', className: 'act' + kind, textContent: text });
    made.addEventListener('click', act);
    return made;
  };
  foot.className = 'form-foot';
  foot.append(button('Stay signed in', '', () => dialog.close()), button('Throw it away and go', ' act-quiet', () => leave(form)));
  dialog.append(words, list, foot);
  dialog.addEventListener('close', () => dialog.remove());
  document.body.append(dialog);
  dialog.showModal();
};

const leave = async (form) => {
  form.elements.others.value = await forget() ? 'yes' : '';
  form.submit();
};

document.addEventListener('submit', async (event) => {
  if (!event.target.matches('[data-leaves]')) return;
  event.preventDefault();
  const waits = await entries().catch(() => []);
  if (waits.length === 0) leave(event.target);
  else ask(event.target, waits);
});

if (document.querySelector('[data-forget]')) forget();
