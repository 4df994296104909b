// What is written down here goes to the server once it answers, and once only.

// What is kept on this device under a key until the server has it: entries with an id and
// the fields of a form. One that the server refuses stays, with why.
export const outbox = (key, one, many) => ({
  all() {
    try { return JSON.parse(localStorage.getItem(key)) || []; } catch (error) { return []; }
  },
  put(list) { localStorage.setItem(key, JSON.stringify(list)); },
  add(entry) { this.put([...this.all(), { ...entry, refused: '' }]); },
  drop(id) { this.put(this.all().filter((e) => e.id !== id)); },
  refuse(id, why) { this.put(this.all().map((e) => e.id === id ? { ...e, refused: why } : e)); },
  next() { return this.all().find((e) => !e.refused); },
  refused() { return this.all().filter((e) => e.refused); },

  // Calls while what holds the entries stands in the page: what the network's return has it do.
  whenOnline(act) {
    window.addEventListener('online', act);
    return () => window.removeEventListener('online', act);
  },

  // Says in a line how many wait.
  show(line) {
    const n = this.all().length - this.refused().length;
    line.hidden = n === 0;
    line.textContent = (n === 1 ? '1 ' + one + ' is' : n + ' ' + many + ' are') + ' kept on this device and sent when the server answers.';
  },
});

// What no server has yet of all that is kept on this device, in words.
export const unsent = () => Object.keys(localStorage).filter((key) => key.startsWith('mule-'))
  .flatMap((key) => outbox(key).all())
  .map((e) => e.fields.filter(([name, value]) => value && !['id', 'base', 'save', 'stage', 'loadout'].includes(name)).map(([, value]) => value).join(', '));

// Nothing of a rider's stays on this device.
export const forget = () => [localStorage, sessionStorage].forEach((kept) => kept.clear());

// A button of words that does something here.
export const linkButton = (words, act) => {
  const button = document.createElement('button');
  button.type = 'button';
  button.className = 'link-act';
  button.textContent = words;
  button.addEventListener('click', act);
  return button;
};

// An id as long as the server's own, in the same letters.
export const freshID = () => {
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';
  return [...crypto.getRandomValues(new Uint8Array(26))].map((b) => letters[b % 32]).join('');
};

// Sends something that is kept here. Only an answer that names its id has taken it; one
// that says what is wrong has refused it; whatever else comes, it is sent again later.
export const post = async (action, { id, fields }) => {
  let reply;
  try {
    reply = await fetch(action, { method: 'POST', body: new URLSearchParams(fields) });
  } catch (error) {
    return { state: 'later' }; // no network
  }
  const at = new URL(reply.url);
  if (reply.status >= 500 || reply.status === 429 || at.pathname === '/sign-in') return { state: 'later' };
  const page = new DOMParser().parseFromString(await reply.text(), 'text/html');
  if (reply.ok) return { state: at.searchParams.get('kept') === id ? 'sent' : 'later', page };
  const why = page.querySelector('.error') || page.querySelector('.form-note') || page.querySelector('h1');
  return { state: 'refused', page, why: why ? why.textContent.trim().replace(/\s+/g, ' ') : 'it cannot be used' };
};
