// Fetches the pages behind options sooner than a click would, and swaps the
// parts that changed. Everything here also works as plain links and forms; no
// figure is computed in this file.
import './device.js';
import './leave.js';
import './queued.js';
import { drawn, handOn, replace, sameVersion, touched } from './page.js';

// The href property of a link inside SVG is not a string.
const address = (link) => link.getAttribute('href');

// Where the focus was when a form of a page went off, until the page is there again.
const focusKept = {
  key: 'focus',
  keep(form) {
    const at = document.activeElement;
    if (!form.contains(at) || !(at.id || at.name)) return;
    try {
      sessionStorage.setItem(this.key, JSON.stringify({ page: location.pathname, id: at.id, name: at.name, form: new URL(form.action).pathname }));
    } catch (error) { /* a browser that keeps nothing starts at the top */ }
  },
  // A form that came back with an error starts at the first.
  back() {
    let was = null;
    try {
      was = JSON.parse(sessionStorage.getItem(this.key));
      sessionStorage.removeItem(this.key);
    } catch (error) { return; }
    const wrong = document.querySelector('main .has-error input, main .has-error select, main .has-error textarea');
    if (wrong) return handOn(wrong);
    if (!was || was.page !== location.pathname || location.hash) return;
    const form = [...document.forms].find((f) => new URL(f.action).pathname === was.form) || document;
    const again = (was.id && document.getElementById(was.id)) || (was.name && form.querySelector('[name="' + CSS.escape(was.name) + '"]'));
    if (again) handOn(again);
  },
};

document.addEventListener('alpine:init', () => {
  window.Alpine.data('desk', () => ({
    request: null, // the fetch under way
    waiting: null, // the timer before one
    pinned: false, // a click holds the bench against the pointer
    out: false, // somebody has signed this page's rider out
    busy: false, // what a click asked for is under way: pointing must not cut it off
    sent: false, // a form is on its way
    going: false, // after a g: the next letter is a stage's

    init() {
      this.ready();
      this.forward();
      focusKept.back();
      // On the way back a browser shows what it has kept.
      const [way] = performance.getEntriesByType('navigation');
      if (way && way.type === 'back_forward') this.refresh();
      window.addEventListener('beforeunload', (event) => this.leaving(event));
      document.addEventListener('submit', (event) => {
        if (event.defaultPrevented) return;
        if (event.target.matches('.stage-form')) this.sent = true;
        if (event.target.method === 'post') focusKept.keep(event.target);
      });
      window.addEventListener('pageshow', (event) => { if (event.persisted) this.refresh(); });
    },

    // What lies on the bench brings the gauges forward that it moves, with what they come to.
    forward() {
      const moved = new Map([...this.$root.querySelectorAll('#bench [data-moves]')].map((row) => [row.dataset.moves, row]));
      this.$root.querySelectorAll('#strip .gauge').forEach((gauge) => {
        const row = moved.get(gauge.dataset.gauge), was = gauge.querySelector('.gauge-then');
        gauge.dataset.size = gauge.dataset.size || gauge.className.match(/as-(\w+)/)[1];
        const size = row ? 'moved' : moved.size && gauge.dataset.size === 'large' ? 'mark' : gauge.dataset.size;
        gauge.className = gauge.className.replace(/as-\w+/, 'as-' + size);
        if (was) was.remove();
        if (!row) return;
        const then = document.createElement('span');
        then.className = 'gauge-then';
        then.append('→ ' + row.querySelector('.now').firstChild.textContent + ' ', ...[...row.querySelector('.state').childNodes].map((n) => n.cloneNode(true)));
        gauge.querySelector('.gauge-value').append(then);
      });
    },

    // What has been replaced, by whatever it was, is made ready.
    replaced({ detail: ids }) {
      if (ids.includes('main')) this.ready();
      if (ids.includes('bench') || ids.includes('strip')) this.forward();
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
      this.$root.querySelectorAll('[data-find]').forEach((field) => { field.hidden = false; });
      const stage = this.$root.querySelector('.rail a[aria-current]'), rail = this.$root.querySelector('.rail ol');
      if (stage && rail.scrollWidth > rail.clientWidth) rail.scrollLeft = stage.offsetLeft - (rail.clientWidth - stage.offsetWidth) / 2;
      const first = pairs.find((p) => p.classList.contains('is-current')) || pairs[0];
      if (first) first.setAttribute('tabindex', '0');
      const shown = pairs.find((p) => p.classList.contains('is-tried')) || first;
      const field = document.querySelector('#field .drawing-scroll');
      if (shown && field) field.scrollLeft += shown.getBoundingClientRect().left - field.getBoundingClientRect().left - field.clientWidth / 2;
    },

    click(event) {
      if (event.ctrlKey || event.metaKey || event.shiftKey || event.button !== 0) return;
      if (event.target.closest('[data-print]')) return window.print();
      const link = event.target.closest('a');
      if (!link) return this.row(event);
      if (link.hasAttribute('data-working')) {
        event.preventDefault();
        this.show(address(link), 'working');
      } else if (link.hasAttribute('data-dialog')) {
        event.preventDefault();
        this.show(address(link), link.dataset.dialog);
      } else if (link.hasAttribute('data-try')) {
        event.preventDefault();
        this.pinned = true;
        this.lay(link, true);
      } else if (link.hasAttribute('data-leave') || link.hasAttribute('data-shut')) {
        event.preventDefault();
        this.pinned = link.hasAttribute('data-shut');
        this.mark(null);
        history.replaceState(null, '', address(link));
        this.asked(address(link), drawn());
      } else if (link.hasAttribute('data-look')) {
        event.preventDefault();
        this.asked(address(link), [link.dataset.look]);
      } else if (link.hasAttribute('data-beside')) {
        event.preventDefault();
        this.beside(link);
      }
    },

    // Brings a page up to date; where something has been typed, only around it.
    refresh() {
      const typed = touched();
      return this.asked(location.href, typed ? ['strip', ...drawn()] : ['strip', 'main', 'bench']).then((page) => {
        if (this.out && !typed) location.replace('/sign-in');
        return page;
      });
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
      const done = await this.swap(address(link), drawn());
      if (!done || !chosen) return;
      history.replaceState(null, '', address(link));
      const bench = document.getElementById('bench');
      if (fromBench) {
        const heading = bench.querySelector('h2');
        heading.setAttribute('tabindex', '-1');
        heading.focus();
      }
      if (window.matchMedia('(max-width: 999px)').matches) bench.scrollIntoView({ block: 'start' });
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
      const page = await this.swap(this.withBench(form.dataset.live), [...drawn(), 'errors'], { method: 'POST', body: new URLSearchParams(new FormData(form)) });
      if (page) this.errors(form, page);
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
      const standing = (s) => Math.max(0, [...s.options].findIndex((o) => o.defaultSelected));
      const blank = (row) => [...row.querySelectorAll('input:not([type=checkbox]):not([type=hidden])')].every((f) => f.value === '')
        && [...row.querySelectorAll('select')].every((s) => s.selectedIndex === standing(s));
      while (list.children.length > 2 && !(blank(list.lastElementChild) && blank(list.lastElementChild.previousElementSibling))) {
        const row = list.lastElementChild.cloneNode(true);
        row.classList.remove('has-error');
        row.querySelectorAll('.help').forEach((e) => e.remove());
        const next = (text) => text.replace(/[.](\d+)$/, (_, n) => '.' + (Number(n) + 1));
        if (row.dataset.error) row.dataset.error = next(row.dataset.error);
        row.querySelectorAll('*').forEach((e) => {
          if (e.name) e.name = next(e.name);
          const label = e.getAttribute('aria-label');
          if (label) e.setAttribute('aria-label', label.replace(/ (\d+)(?=:|$)/, (_, n) => ' ' + (Number(n) + 1)));
          if (e.matches('input[type=checkbox]')) e.checked = false;
          else if (e.matches('input')) e.value = '';
          else if (e.matches('select')) e.selectedIndex = standing(e);
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

    // Words leave of a list the options that hold all of them, also of those that are folded.
    find(field) {
      const words = field.value.toLowerCase().split(/\s+/).filter(Boolean);
      field.parentNode.querySelectorAll('[data-row]').forEach((row) => {
        row.classList.toggle('is-out', !words.every((word) => row.textContent.toLowerCase().includes(word)));
      });
      field.parentNode.querySelectorAll('.options-fold').forEach((fold) => {
        fold.classList.toggle('is-found', words.length > 0);
        fold.querySelector('.fold-row').hidden = words.length > 0;
      });
    },

    // A calculator computes while one types.
    typing(event) {
      if (event.target.matches('[data-find]')) return this.find(event.target);
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
        this.errors(form, page);
        history.replaceState(null, '', url);
      }, 150);
    },

    // Errors go to their fields, found by key; what is typed stays as it is. One whose field
    // is not here stands above the form.
    errors(form, answer) {
      const own = (holder) => holder.querySelector(':scope > .help > .error');
      form.querySelectorAll('[data-error], .error-elsewhere').forEach((holder) => {
        const error = own(holder);
        holder.classList.remove('has-error');
        if (holder.matches('.error-elsewhere')) holder.remove();
        else if (error && error.parentNode.textContent.trim() === error.textContent.trim()) error.parentNode.remove();
        else if (error) error.remove();
      });
      [...answer.querySelectorAll('[data-error]')].filter(own).forEach((said) => {
        const key = said.dataset.error, error = document.createElement('span');
        error.className = 'error';
        error.textContent = own(said).textContent;
        const holder = form.querySelector('[data-error="' + CSS.escape(key) + '"]') || this.elsewhere(form, key);
        let help = holder.querySelector(':scope > .help');
        if (!help) {
          help = document.createElement('p');
          help.className = 'help';
          holder.append(help);
        }
        help.prepend(error, ' ');
        holder.classList.add('has-error');
      });
    },

    // A place above a form for an error that none of its fields takes.
    elsewhere(form, key) {
      const place = document.createElement('div');
      place.className = 'error-elsewhere';
      place.dataset.error = key;
      place.setAttribute('role', 'alert');
      form.prepend(place);
      return place;
    },

    // Keys that work anywhere but where one types.
    shortcut(event) {
      if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest('input, select, textarea, dialog')) return;
      const press = (selector) => {
        const target = document.querySelector(selector);
        if (target && !target.disabled) target.click();
      };
      const actions = {
        '?': () => this.show(address(document.querySelector('.tool-keys')), 'help'),
        '/': () => {
          const find = (selector) => this.$root.querySelector(selector);
          const first = find('main input[type=search]') || find('main .pair[tabindex="0"]') || find('main [data-try]') || find('main input:not([type=hidden])');
          if (first) first.focus();
        },
        u: () => press('form[action$="/undo"] button'),
        r: () => press('form[action$="/redo"] button'),
        h: () => press('.masthead a[href*="/history"]'),
        l: () => press('.loadouts a[aria-current] + a, .loadouts a:not([aria-current])'),
        v: () => press('.strip-line summary'),
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

    // Fetches parts of a page and puts them in place of the ones here.
    async swap(url, ids, init) {
      const page = await this.page(url, { ...init, headers: { 'Mule-Parts': ids.join(',') } });
      if (!page) return null;
      if (this.out) {
        this.trouble('You are signed out. Sign in again in another tab: what is typed here stays.');
        return null;
      }
      if (!ids.some((id) => page.getElementById(id))) {
        this.trouble(page.querySelector('h1') ? page.querySelector('h1').textContent : 'That did not work.');
        return null;
      }
      replace(page, ids);
      return page;
    },

    async page(url, init) {
      if (this.request) this.request.abort();
      this.request = new AbortController();
      try {
        const answer = await fetch(url, { ...init, signal: this.request.signal });
        this.trouble('');
        this.out = new URL(answer.url).pathname === '/sign-in';
        if (!sameVersion(answer)) return this.renewed();
        return new DOMParser().parseFromString(await answer.text(), 'text/html');
      } catch (error) {
        if (error.name !== 'AbortError') this.trouble('The server does not answer. Nothing was changed; try again in a moment.');
        return null;
      }
    },

    // The program is another one since this page was made.
    renewed() {
      if (touched()) this.trouble('This program was renewed meanwhile. Save what you typed, or load the page again.');
      else location.reload();
      return null;
    },

    trouble(text) {
      const line = document.getElementById('trouble');
      line.textContent = text;
      line.hidden = text === '';
    },
  }));
});
