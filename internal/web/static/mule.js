// Fetches the pages behind options sooner than a click would, and swaps the
// parts that changed. Everything here also works as plain links and forms; no
// figure is computed in this file.
'use strict';

// The href property of a link inside SVG is not a string.
const address = (link) => link.getAttribute('href');

// What is kept on this device under a key until the server has it: entries with an id and
// the fields of a form. One that the server refuses stays, with why.
const outbox = (key, one, many) => ({
  all() {
    try { return JSON.parse(localStorage.getItem(key)) || []; } catch (error) { return []; }
  },
  put(list) { localStorage.setItem(key, JSON.stringify(list)); },
  add(entry) { this.put([...this.all(), { ...entry, refused: '' }]); },
  drop(id) { this.put(this.all().filter((e) => e.id !== id)); },
  refuse(id, why) { this.put(this.all().map((e) => e.id === id ? { ...e, refused: why } : e)); },
  next() { return this.all().find((e) => !e.refused); },
  refused() { return this.all().filter((e) => e.refused); },

  // Says in a line how many wait.
  show(line) {
    const n = this.all().length - this.refused().length;
    line.hidden = n === 0;
    line.textContent = (n === 1 ? '1 ' + one + ' is' : n + ' ' + many + ' are') + ' kept on this device and sent when the server answers.';
  },
});

// A button of words that does something here.
const linkButton = (words, act) => {
  const button = document.createElement('button');
  button.type = 'button';
  button.className = 'link-act';
  button.textContent = words;
  button.addEventListener('click', act);
  return button;
};

// An id as long as the server's own, in the same letters.
const freshID = () => {
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';
  return [...crypto.getRandomValues(new Uint8Array(26))].map((b) => letters[b % 32]).join('');
};

// Sends something that is kept here. Only an answer that names its id has taken it; one
// that says what is wrong has refused it; whatever else comes, it is sent again later.
const post = async (action, { id, fields }) => {
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

document.addEventListener('alpine:init', () => {
  window.Alpine.data('desk', () => ({
    request: null, // the fetch under way
    waiting: null, // the timer before one
    pinned: false, // a click holds the bench against the pointer
    busy: false, // what a click asked for is under way: pointing must not cut it off
    sent: false, // a form is on its way
    going: false, // after a g: the next letter is a stage's

    init() {
      this.ready();
      // On the way back a browser shows what it has kept.
      const [way] = performance.getEntriesByType('navigation');
      if (way && way.type === 'back_forward') this.refresh();
      window.addEventListener('beforeunload', (event) => this.leaving(event));
      document.addEventListener('submit', (event) => { if (event.target.matches('.stage-form') && !event.defaultPrevented) this.sent = true; });
      window.addEventListener('pageshow', (event) => { if (event.persisted) this.refresh(); });
    },

    // Makes main ready for the hand: sliders, and the field's place for the keys.
    ready() {
      this.$root.querySelectorAll('input[type=range][data-for]').forEach((slider) => {
        slider.hidden = false;
        const field = document.getElementById(slider.dataset.for), typed = parseFloat(field.value);
        slider.value = Number.isNaN(typed) ? slider.dataset.stands : typed;
        this.named(slider, field);
      });
      const pairs = this.pairs();
      pairs.forEach((pair) => pair.setAttribute('tabindex', '-1'));
      const first = pairs.find((p) => p.classList.contains('is-current')) || pairs[0];
      if (first) first.setAttribute('tabindex', '0');
      const shown = pairs.find((p) => p.classList.contains('is-tried')) || first;
      const field = document.querySelector('#field .drawing-scroll');
      if (shown && field) field.scrollLeft += shown.getBoundingClientRect().left - field.getBoundingClientRect().left - field.clientWidth / 2;
    },

    click(event) {
      if (event.ctrlKey || event.metaKey || event.shiftKey || event.button !== 0) return;
      const link = event.target.closest('a');
      if (!link) return this.row(event);
      if (link.hasAttribute('data-working')) {
        event.preventDefault();
        this.show(address(link), 'working');
      } else if (link.hasAttribute('data-try')) {
        event.preventDefault();
        this.pinned = true;
        this.lay(link, true);
      } else if (link.hasAttribute('data-leave') || link.hasAttribute('data-shut')) {
        event.preventDefault();
        this.pinned = link.hasAttribute('data-shut');
        this.mark(null);
        history.replaceState(null, '', address(link));
        this.asked(address(link), this.parts());
      } else if (link.hasAttribute('data-look')) {
        event.preventDefault();
        this.asked(address(link), [link.dataset.look]);
      } else if (link.hasAttribute('data-beside')) {
        event.preventDefault();
        this.beside(link);
      }
    },

    // The parts of a page that follow what lies on the bench.
    parts() {
      return ['bench', ...[...this.$root.querySelectorAll('[data-drawn]')].map((e) => e.id)];
    },

    // Brings a page up to date; where something has been typed, only around it.
    refresh() {
      const typed = (f) => (f.type === 'checkbox' || f.type === 'radio' ? f.checked !== f.defaultChecked : f.value !== f.defaultValue);
      const chosen = (s) => s.selectedIndex !== Math.max(0, [...s.options].findIndex((o) => o.defaultSelected));
      const all = (selector) => [...this.$root.querySelectorAll(selector)];
      const touched = all('main input:not([type=range]), main textarea').some(typed) || all('main select').some(chosen);
      return this.asked(location.href, touched ? ['strip', ...this.parts()] : ['strip', 'main', 'bench']);
    },

    // Puts an option beside others: the drawing changes, and every row's link.
    async beside(link) {
      const rows = () => [...this.$root.querySelectorAll('[data-beside]')];
      const at = link.closest('tr').querySelector('.option').textContent;
      if (!await this.asked(address(link), ['main'])) return;
      history.replaceState(null, '', address(link));
      const again = rows().find((e) => e.closest('tr').querySelector('.option').textContent === at);
      if (again) again.focus();
    },

    // A swap that a click asked for.
    async asked(url, ids) {
      clearTimeout(this.waiting);
      this.busy = true;
      const page = await this.swap(url, ids);
      this.busy = false;
      return page;
    },

    // A click anywhere in an option's row is a click on the option.
    row(event) {
      const row = event.target.closest('[data-row]');
      const link = row && row.querySelector('[data-try]');
      if (link) {
        this.pinned = true;
        this.lay(link, true);
      }
    },

    // Pointing at an option, with a mouse or with the focus, lays it on the bench.
    point(event) {
      if (this.pinned || this.busy || event.pointerType !== 'mouse') return;
      const row = event.target.closest('[data-row]');
      this.soon(row ? row.querySelector('[data-try]') : event.target.closest('[data-try]'));
    },

    focus(event) {
      const link = event.target.closest('[data-try]');
      if (link && link.matches(':focus-visible')) this.soon(link);
    },

    soon(link) {
      clearTimeout(this.waiting);
      if (!link || link.closest('#bench')) return;
      this.waiting = setTimeout(() => { if (!this.busy) this.lay(link, false); }, 220);
    },

    async lay(link, chosen) {
      clearTimeout(this.waiting);
      const fromBench = link.closest('#bench') !== null;
      this.mark(link);
      const done = await this.swap(address(link), this.parts());
      if (!done || !chosen) return;
      history.replaceState(null, '', address(link));
      const bench = document.getElementById('bench');
      if (fromBench) {
        const heading = bench.querySelector('h2');
        heading.setAttribute('tabindex', '-1');
        heading.focus();
      }
      if (window.matchMedia('(max-width: 991px)').matches) bench.scrollIntoView({ block: 'start' });
    },

    mark(link) {
      this.$root.querySelectorAll('.is-tried').forEach((e) => e.classList.remove('is-tried'));
      const holder = link && !link.closest('#bench') && (link.closest('[data-row]') || link);
      if (holder) holder.classList.add('is-tried');
    },

    // A letter decides on the part in focus, in the drawer.
    decide(event) {
      const link = event.target.closest && event.target.closest('main [data-try]');
      const form = document.getElementById('decide');
      if (!link || !form || event.ctrlKey || event.metaKey || event.altKey) return false;
      const key = [...document.querySelectorAll('[data-decision]')].find((k) => k.textContent === event.key);
      if (!key) return false;
      event.preventDefault();
      event.stopPropagation();
      form.elements.try.value = new URL(link.href).searchParams.get('try');
      form.elements.decision.value = key.dataset.decision;
      form.submit();
      return true;
    },

    // The field's keys: left and right along a row, up and down to the nearest
    // ratio of the next.
    keys(event) {
      if (this.decide(event)) return;
      const at = event.target.closest && event.target.closest('.pair');
      const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
      if (!at || !step) return;
      event.preventDefault();
      const to = this.neighbour(at, step);
      if (!to) return;
      at.setAttribute('tabindex', '-1');
      to.setAttribute('tabindex', '0');
      to.focus();
    },

    pairs() {
      return [...this.$root.querySelectorAll('.pair')];
    },

    neighbour(at, [along, down]) {
      const all = this.pairs();
      const place = (pair) => pair.transform.baseVal.getItem(0).matrix.e;
      if (along) {
        const row = all.filter((p) => p.dataset.front === at.dataset.front).sort((a, b) => place(a) - place(b));
        return row[row.indexOf(at) + along];
      }
      const fronts = [...new Set(all.map((p) => p.dataset.front))];
      const front = fronts[fronts.indexOf(at.dataset.front) + down];
      return all.filter((p) => p.dataset.front === front)
        .sort((a, b) => Math.abs(place(a) - place(at)) - Math.abs(place(b) - place(at)))[0];
    },

    // A form as typed is held against the plan whenever a field is left.
    async changed(event) {
      const form = event.target.closest('form[data-live]');
      if (!form) return;
      if (form.matches('.stage-form')) form.classList.add('is-touched');
      const slider = form.querySelector('[data-for="' + event.target.id + '"]');
      if (slider) slider.value = parseFloat(event.target.value);
      const page = await this.swap(this.withBench(form.dataset.live), this.parts(), { method: 'POST', body: new URLSearchParams(new FormData(form)) });
      if (page) this.errors(form, page.querySelector('form[data-live]'));
    },

    // An address with what the page's own lays on the bench by now.
    withBench(address) {
      const url = new URL(address, location);
      const here = new URLSearchParams(location.search);
      this.$root.dataset.turns.split(' ').forEach((name) => {
        url.searchParams.delete(name);
        here.getAll(name).forEach((value) => url.searchParams.append(name, value));
      });
      return url.href;
    },

    // A slider writes its number into the field that it stands for.
    slide(slider) {
      const field = document.getElementById(slider.dataset.for);
      field.value = (slider.value + ' ' + slider.dataset.unit).trim();
      this.named(slider, field);
      clearTimeout(this.waiting);
      this.waiting = setTimeout(() => this.changed({ target: slider }), 150);
    },

    // One along a list is at a name, not at a number.
    named(slider, field) {
      if (field.selectedOptions) slider.setAttribute('aria-valuetext', field.selectedOptions[0].text);
    },

    // A list of rows has two blank ones at its end.
    grow(target) {
      const list = target.closest('[data-grows]');
      if (!list) return;
      const blank = (row) => [...row.querySelectorAll('input:not([type=checkbox]):not([type=hidden])')].every((f) => f.value === '');
      while (list.children.length > 2 && !(blank(list.lastElementChild) && blank(list.lastElementChild.previousElementSibling))) {
        const row = list.lastElementChild.cloneNode(true);
        row.classList.remove('has-error');
        row.querySelectorAll('.help').forEach((e) => e.remove());
        row.querySelectorAll('*').forEach((e) => {
          if (e.name) e.name = e.name.replace(/[.](\d+)$/, (_, n) => '.' + (Number(n) + 1));
          const label = e.getAttribute('aria-label');
          if (label) e.setAttribute('aria-label', label.replace(/ (\d+)(?=:|$)/, (_, n) => ' ' + (Number(n) + 1)));
          if (e.matches('input[type=checkbox]')) e.checked = false;
          else if (e.matches('input')) e.value = '';
          else if (e.matches('select')) e.selectedIndex = 0;
        });
        list.append(row);
      }
    },

    // What a section still lacks is counted as one types.
    count(target) {
      const section = target.closest('.sheet-section');
      const shown = section && section.querySelector('[data-missing]');
      if (!shown) return;
      const missing = [...section.querySelectorAll('input')].filter((f) => f.value.trim() === '').length;
      shown.textContent = missing ? missing + ' not known' : '';
    },

    // A form that was touched is not left without a question.
    leaving(event) {
      if (this.sent || !document.querySelector('form.stage-form.is-touched')) return;
      event.preventDefault();
    },

    // A calculator computes while one types.
    typing(event) {
      if (event.target.matches('input[type=range][data-for]')) return this.slide(event.target);
      this.grow(event.target);
      this.count(event.target);
      const form = event.target.closest('form[data-live-get]');
      if (!form) return;
      clearTimeout(this.waiting);
      this.waiting = setTimeout(async () => {
        const url = form.getAttribute('action') + '?' + new URLSearchParams(new FormData(form));
        const page = await this.swap(url, form.dataset.swaps.split(' '));
        if (!page) return;
        this.errors(form, page.querySelector('form[data-live-get]'));
        history.replaceState(null, '', url);
      }, 150);
    },

    // Errors go to their fields; what is typed stays as it is.
    errors(form, fresh) {
      if (!fresh) return;
      const holders = (root) => [...root.querySelectorAll('.field, .row-3, .row-std, .row-rate, .row-change, .row-fact, .row-ground, .row-stop, .row-report, .row-mate, .row-where, .row-pack, .row-cover, .row-loadout, .ledger-row, .card-cell, .click-cell, fieldset')];
      const now = holders(fresh);
      holders(form).forEach((holder, i) => {
        if (!now[i]) return;
        holder.classList.toggle('has-error', now[i].classList.contains('has-error'));
        const help = (h) => [...h.children].find((c) => c.classList.contains('help'));
        const was = help(holder), is = help(now[i]);
        if (was && is) was.replaceWith(is);
        else if (was) was.remove();
        else if (is) holder.append(is);
      });
    },

    // Keys that work anywhere but where one types.
    shortcut(event) {
      if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest('input, select, textarea, dialog')) return;
      const press = (selector) => {
        const target = document.querySelector(selector);
        if (target && !target.disabled) target.click();
      };
      const actions = {
        '?': () => this.show('/keys', 'keys'),
        '/': () => {
          const find = (selector) => this.$root.querySelector(selector);
          const first = find('main input[type=search]') || find('main .pair[tabindex="0"]') || find('main [data-try]') || find('main input:not([type=hidden])');
          if (first) first.focus();
        },
        u: () => press('form[action$="/undo"] button'),
        r: () => press('form[action$="/redo"] button'),
        h: () => press('.masthead a[href*="/history"]'),
        l: () => press('.loadouts a[aria-current] + a, .loadouts a:not([aria-current])'),
        w: () => { const gauge = document.querySelector('.strip .gauge'); if (gauge) gauge.focus(); },
        b: () => { const act = document.querySelector('#bench [data-fit]') || document.querySelector('#bench a'); if (act) act.focus(); },
        Escape: () => press('#bench [data-leave]'),
      };
      const stage = this.going && this.$root.querySelector('.rail a[data-key="' + CSS.escape(event.key) + '"]');
      this.going = !this.going && event.key === 'g';
      if (!stage && !this.going && !actions[event.key]) return;
      event.preventDefault();
      if (stage) stage.click();
      else if (!this.going) actions[event.key]();
    },

    // Shows a part of another page in the dialog.
    async show(url, id) {
      const page = await this.page(url, { headers: { 'Mule-Parts': id } });
      const working = page && page.getElementById(id);
      if (!working) return;
      const close = document.createElement('form');
      close.method = 'dialog';
      const button = document.createElement('button');
      button.className = 'act act-quiet';
      button.textContent = 'Close';
      close.append(button);
      const dialog = document.getElementById('dialog');
      dialog.replaceChildren(working, close);
      dialog.showModal();
    },

    // Fetches parts of a page and puts them in place of the ones here. What a form
    // sends is answered with the whole page: its errors stand beside its fields.
    async swap(url, ids, init) {
      const page = await this.page(url, init || { headers: { 'Mule-Parts': ids.join(',') } });
      if (!page) return null;
      if (!ids.some((id) => page.getElementById(id))) {
        this.trouble(page.querySelector('h1') ? page.querySelector('h1').textContent : 'That did not work.');
        return null;
      }
      for (const id of ids) {
        const was = document.getElementById(id), now = page.getElementById(id);
        if (was && now) was.replaceWith(document.adoptNode(now));
      }
      if (ids.includes('main')) this.ready();
      return page;
    },

    async page(url, init) {
      if (this.request) this.request.abort();
      this.request = new AbortController();
      try {
        const answer = await fetch(url, { ...init, signal: this.request.signal });
        this.trouble('');
        return new DOMParser().parseFromString(await answer.text(), 'text/html');
      } catch (error) {
        if (error.name !== 'AbortError') this.trouble('The server does not answer. Nothing was changed; try again in a moment.');
        return null;
      }
    },

    trouble(text) {
      const line = document.getElementById('trouble');
      line.textContent = text;
      line.hidden = text === '';
    },
  }));

  // The walk around the bike: an answer is kept on this device until the server
  // has it, and is sent once.
  window.Alpine.data('walk', () => ({
    waiting: null, // the timer before another attempt
    sending: false,

    init() {
      this.box = outbox('mule-answers-' + this.$root.dataset.plan, 'answer', 'answers');
      this.show();
      this.box.all().forEach((a) => this.restore(a));
      window.addEventListener('online', () => this.send());
      this.send();
    },

    // A verdict is an answer by itself.
    tap(event) {
      const form = event.target.closest('[data-answer]');
      if (!form || !event.submitter) return;
      event.preventDefault();
      form.querySelectorAll('.verdict').forEach((v) => v.setAttribute('aria-pressed', String(v === event.submitter)));
      this.answer(form);
    },

    // What is typed after a verdict goes with it.
    typed(event) {
      const form = event.target.closest('[data-answer]');
      if (form && form.querySelector('.verdict[aria-pressed=true]')) this.answer(form);
    },

    answer(form) {
      const body = new FormData(form), id = freshID();
      body.set('id', id);
      body.set('verdict', form.querySelector('.verdict[aria-pressed=true]').value);
      form.classList.add('is-unsent');
      const check = form.dataset.answer;
      this.box.all().filter((a) => a.check === check).forEach((a) => this.box.drop(a.id));
      this.box.add({ id, check, action: form.getAttribute('action'), fields: [...body] });
      this.show();
      this.send();
    },

    // Puts what was not sent back into its form.
    restore(answer) {
      const form = document.getElementById('check-' + answer.check);
      if (!form) return;
      form.classList.add('is-unsent');
      answer.fields.forEach(([name, value]) => {
        const field = form.querySelector('input[name="' + name + '"]');
        if (field) field.value = value;
        if (name === 'verdict') form.querySelectorAll('.verdict').forEach((v) => v.setAttribute('aria-pressed', String(v.value === value)));
      });
      if (answer.refused) this.complain(form, answer);
    },

    // Says in its form why an answer was not taken. Answering anew mends it.
    complain(form, answer) {
      form.querySelectorAll('.not-taken').forEach((line) => line.remove());
      const line = document.createElement('p');
      line.className = 'not-taken error';
      line.append('Not taken: ' + answer.refused + ' ', linkButton('Throw it away', () => {
        this.box.drop(answer.id);
        location.reload();
      }));
      form.querySelector('h3').after(line);
    },

    async send() {
      clearTimeout(this.waiting);
      if (this.sending) return;
      this.sending = true;
      for (let next = this.box.next(); next; next = this.box.next()) {
        if (!await this.sent(next)) break;
      }
      this.sending = false;
      if (this.box.next()) this.waiting = setTimeout(() => this.send(), 5000);
    },

    // Sends one; false when the server has neither taken nor refused it. A refused one
    // stays here until it is answered anew.
    async sent(answer) {
      const reply = await post(answer.action, answer), page = reply.page;
      if (reply.state === 'later') return false;
      if (reply.state === 'refused') this.box.refuse(answer.id, reply.why);
      else this.box.drop(answer.id);
      this.show();
      const newer = this.box.all().some((a) => a.check === answer.check && a.id !== answer.id);
      const parts = ['strip', 'bench', 'walk-bar', ...newer ? [] : ['check-' + answer.check]];
      for (const id of parts) {
        const was = document.getElementById(id), now = page.getElementById(id);
        if (!was || !now) continue;
        const focus = was.contains(document.activeElement) && document.activeElement;
        if (focus && focus.matches('input')) was.classList.remove('is-unsent');
        else {
          const value = focus && focus.value;
          was.replaceWith(document.adoptNode(now));
          if (focus) [...now.querySelectorAll('button')].filter((b) => b.value === value).forEach((b) => b.focus());
        }
      }
      const form = document.getElementById('check-' + answer.check);
      if (reply.state === 'refused' && !newer && form) this.complain(form, { ...answer, refused: reply.why });
      return true;
    },

    show() { this.box.show(document.getElementById('unsent')); },
  }));

  // Dragging across the heights fills in the first blank stretch of the form.
  window.Alpine.data('sections', () => ({
    from: null, // km where the drag started

    // The distance under the pointer, and where that is in the drawing.
    at(event) {
      const svg = this.$root, box = svg.dataset;
      const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
      const x = Math.min(Math.max(point.x, Number(box.left)), Number(box.right));
      return { x, km: (x - box.left) / (box.right - box.left) * box.length };
    },

    down(event) {
      if (event.button !== 0) return;
      this.from = this.at(event);
      if (event.pointerType === 'mouse') this.$root.setPointerCapture(event.pointerId);
    },

    move(event) {
      if (!this.from) return;
      const now = this.at(event), chosen = this.$root.querySelector('[data-chosen]');
      chosen.setAttribute('x', Math.min(now.x, this.from.x));
      chosen.setAttribute('width', Math.abs(now.x - this.from.x));
    },

    up(event) {
      if (!this.from) return;
      const ends = [this.from.km, this.at(event).km].sort((a, b) => a - b);
      this.from = null;
      const blank = [...document.querySelectorAll('[data-blank]')].find((row) => row.querySelector('input').value === '');
      if (!blank || ends[1] - ends[0] < 0.1) return;
      const [from, to] = blank.querySelectorAll('input');
      from.value = ends[0].toFixed(1);
      to.value = ends[1].toFixed(1);
      blank.querySelector('select').focus();
    },

    leave() { this.from = null; },
  }));

  // Dragging a disc to a spot chooses that spot in the disc's row of the form.
  window.Alpine.data('balance', () => ({
    disc: null, // the one that is dragged
    near: null, // the spot under it

    at(event) {
      return new DOMPoint(event.clientX, event.clientY).matrixTransform(this.$root.getScreenCTM().inverse());
    },

    // closest is the mark next to a point, and how far it is on the screen, px.
    closest(marks, point) {
      const scale = this.$root.getScreenCTM().a;
      const far = (mark) => scale * Math.hypot(mark.getAttribute('cx') - point.x, mark.getAttribute('cy') - point.y);
      return [...this.$root.querySelectorAll(marks)].map((mark) => ({ mark, far: far(mark) })).sort((a, b) => a.far - b.far)[0];
    },

    down(event) {
      const under = event.button === 0 && this.closest('[data-load] circle', this.at(event));
      if (!under || under.far > 22) return; // a fingertip's reach
      this.disc = under.mark.parentNode;
      event.preventDefault();
      if (event.pointerType === 'mouse') this.$root.setPointerCapture(event.pointerId);
      this.disc.classList.add('is-dragged');
    },

    move(event) {
      if (!this.disc) return;
      const point = this.at(event), circle = this.disc.querySelector('circle');
      circle.setAttribute('cx', point.x);
      circle.setAttribute('cy', point.y);
      if (this.near) this.near.classList.remove('is-near');
      this.near = this.closest('[data-spot]', point).mark;
      this.near.classList.add('is-near');
    },

    up() {
      const select = this.disc && this.near && document.querySelector('select[name="where.' + this.disc.dataset.load + '"]');
      this.leave();
      if (!select) return;
      select.value = this.chosen;
      select.dispatchEvent(new Event('change', { bubbles: true }));
    },

    leave() {
      if (this.disc) this.disc.classList.remove('is-dragged');
      this.chosen = this.near && this.near.dataset.spot;
      this.disc = this.near = null;
    },
  }));

  // Dragging an accessory into a lane hangs it there: its select says so, and keys do the same.
  window.Alpine.data('lanes', () => ({
    block: null, // the one that is dragged

    lane(event) {
      const under = document.elementFromPoint(event.clientX, event.clientY);
      return under && under.closest('[data-feed]');
    },

    down(event) {
      const grip = event.button === 0 && event.target.closest('[data-grip]');
      if (!grip) return;
      this.block = grip.closest('[data-block]');
      event.preventDefault();
      this.block.classList.add('is-dragged');
    },

    move(event) {
      if (!this.block) return;
      const over = this.lane(event);
      this.$root.querySelectorAll('[data-feed]').forEach((lane) => lane.classList.toggle('is-near', lane === over));
    },

    up(event) {
      const block = this.block, lane = block && this.lane(event);
      this.leave();
      if (!lane || lane.contains(block)) return;
      const select = block.querySelector('select');
      select.value = lane.dataset.feed;
      lane.append(block);
      select.dispatchEvent(new Event('change', { bubbles: true }));
    },

    leave() {
      if (this.block) this.block.classList.remove('is-dragged');
      this.$root.querySelectorAll('[data-feed]').forEach((lane) => lane.classList.remove('is-near'));
      this.block = null;
    },
  }));

  // A file that is long on its way shows how far it is.
  document.addEventListener('submit', (event) => {
    const form = event.target.closest('form[data-upload]');
    if (!form || !form.querySelector('input[type=file]').files.length) return;
    event.preventDefault();
    const line = form.querySelector('.progress-line'), bar = line.querySelector('progress'), text = line.querySelector('span');
    const button = form.querySelector('button');
    const done = (words) => { text.textContent = words; button.disabled = false; };
    line.hidden = false;
    button.disabled = true;
    const request = new XMLHttpRequest();
    request.upload.onprogress = (step) => {
      if (!step.lengthComputable) return;
      bar.value = 100 * step.loaded / step.total;
      text.textContent = Math.round(bar.value) + ' % read';
    };
    request.onerror = () => done('The server does not answer. Nothing was changed; try again in a moment.');
    request.onload = () => {
      if (request.status < 400) return window.location.assign(request.responseURL);
      const page = new DOMParser().parseFromString(request.responseText, 'text/html');
      const now = page.getElementById('main');
      if (now && page.querySelector('form[data-upload]')) document.getElementById('main').replaceWith(document.adoptNode(now));
      else done(page.querySelector('h1') ? page.querySelector('h1').textContent : 'That did not work.');
    };
    request.open('POST', form.getAttribute('action'));
    request.send(new FormData(form));
  });

  // A fill or another reading is kept on this device until the server names it as taken, and is sent once.
  // One that the server refuses stays, with why, until it is mended or thrown away.
  window.Alpine.data('log', () => ({
    waiting: null, // the timer before another attempt
    sending: false,

    init() {
      this.box = outbox('mule-log-' + this.$root.getAttribute('action'), this.$root.dataset.one, this.$root.dataset.many);
      window.addEventListener('online', () => this.flush());
      this.show();
      this.flush();
    },

    send(event) {
      event.preventDefault();
      const body = new FormData(this.$root), id = freshID();
      body.set('id', id);
      this.box.add({ id, fields: [...body] });
      this.show();
      this.$root.reset();
      this.flush();
    },

    async flush() {
      clearTimeout(this.waiting);
      if (this.sending) return;
      this.sending = true;
      for (let next = this.box.next(); next; next = this.box.next()) {
        const reply = await post(this.$root.getAttribute('action'), next);
        if (reply.state === 'later') break;
        if (reply.state === 'refused') {
          this.box.refuse(next.id, reply.why);
          this.show();
        } else {
          this.box.drop(next.id);
          this.show();
          this.sending = false;
          // The form is a new one now, with a log of its own that goes on.
          for (const id of ['strip', 'bench', 'main']) {
            const was = document.getElementById(id), now = reply.page.getElementById(id);
            if (was && now) was.replaceWith(document.adoptNode(now));
          }
          return;
        }
      }
      this.sending = false;
      if (this.box.next()) this.waiting = setTimeout(() => this.flush(), 5000);
    },

    show() {
      this.box.show(this.$root.querySelector('.unsent'));
      const list = this.$root.parentElement.querySelector('.refused'), refused = this.box.refused();
      list.hidden = refused.length === 0;
      list.replaceChildren(...refused.map((f) => this.row(f)));
    },

    // Why a fill was not taken, and what can be done with it.
    row(fill) {
      const row = document.createElement('li');
      const said = (name) => {
        const [, value] = fill.fields.find(([key]) => key === name) || ['', ''], unit = this.$root.querySelector('[for="f-' + name + '"] .unit');
        return value && unit && !/[a-z]/i.test(value) ? value + ' ' + unit.textContent : value;
      };
      row.textContent = this.$root.dataset.says.split(' ').map(said).filter(Boolean).join(', ') + ' was not taken: ' + fill.refused + ' ';
      const without = () => {
        this.box.drop(fill.id);
        this.show();
      };
      row.append(linkButton('Mend it', () => {
        without();
        fill.fields.forEach(([name, value]) => {
          const field = this.$root.querySelector('[name="' + name + '"]');
          if (field && field.type === 'checkbox') field.checked = true;
          else if (field) field.value = value;
        });
        this.$root.querySelector('.form-control').focus();
      }), ' ', linkButton('Throw it away', without));
      return row;
    },
  }));
});
