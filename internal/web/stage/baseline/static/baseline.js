import { freshID, linkButton, outbox, post } from './outbox.js';

document.addEventListener('alpine:init', () => {
  // The walk around the bike: an answer is kept on this device until the server
  // has it, and is sent once.
  window.Alpine.data('walk', () => ({
    waiting: null, // the timer before another attempt
    sending: false,

    init() {
      this.box = outbox('mule-answers-' + this.$root.dataset.plan, 'answer', 'answers');
      this.show();
      this.box.all().forEach((a) => this.restore(a));
      this.offline = this.box.whenOnline(() => this.send());
      this.send();
    },

    // The walk has been replaced: the one in its place goes on.
    destroy() {
      clearTimeout(this.waiting);
      this.offline();
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
});
