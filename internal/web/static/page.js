// Parts of a page are replaced by those of another answer.

// The version of the program that made this page: its assets stand under it.
const version = new URL(import.meta.url).pathname.split('/')[2];

// Whether an answer is of this page's version. Parts of two do not fit together.
export const sameVersion = (answer) => [null, version].includes(answer.headers.get('Mule-Version'));

// Whether something has been typed into the page's own fields.
export const touched = () => {
  const typed = (f) => (f.type === 'checkbox' || f.type === 'radio' ? f.checked !== f.defaultChecked : f.value !== f.defaultValue);
  const chosen = (s) => s.selectedIndex !== Math.max(0, [...s.options].findIndex((o) => o.defaultSelected));
  const all = (selector) => [...document.querySelectorAll(selector)];
  return all('main input:not([type=range], [type=hidden]), main textarea').some(typed) || all('main select').some(chosen);
};

// The parts of a page that follow what lies on its bench.
export const drawn = () => ['bench', ...[...document.querySelectorAll('[data-drawn]')].map((e) => e.id)];

// Puts the hand on a field, at once: a page that still glides slips from under it.
export const handOn = (field) => {
  field.focus({ preventScroll: true });
  field.scrollIntoView({ block: 'center', behavior: 'instant' });
};

// Where the focus is within a part, so that it is there again in what takes its place.
const focusIn = (part) => {
  const at = document.activeElement;
  if (!part.contains(at) || !(at.id || at.name)) return () => {};
  const form = at.form && at.form.getAttribute('id');
  return (now) => {
    const again = (at.id && document.getElementById(at.id)) || [...now.querySelectorAll('[name="' + CSS.escape(at.name) + '"]')]
      .find((e) => (!form || (e.form && e.form.getAttribute('id') === form)) && (e.type !== 'submit' || e.value === at.value));
    if (again) again.focus({ preventScroll: true });
  };
};

// Puts the parts of those ids in the place of the ones here, and says so.
export const replace = (page, ids) => {
  for (const id of ids) {
    const was = document.getElementById(id), now = page.getElementById(id);
    if (!was || !now) continue;
    const open = was.querySelector(':scope > .strip-line[open]'), focus = focusIn(was);
    was.replaceWith(document.adoptNode(now));
    if (open) now.querySelector('.strip-line').open = true;
    focus(now);
  }
  document.dispatchEvent(new CustomEvent('replaced', { detail: ids }));
};
