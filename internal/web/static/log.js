import { freshID, linkButton, outbox, post } from './outbox.js';

document.addEventListener('alpine:init', () => {
  // A fill or another reading is kept on this device until the server names it as taken, and is sent once.
  // One that the server refuses stays, with why, until it is mended or thrown away.
  window.Alpine.data('log', () => ({
    waiting: null, // the timer before another attempt
    sending: false,

    init() {
      this.box = outbox('mule-log-' + this.$root.getAttribute('action'), this.$root.dataset.one, this.$root.dataset.many);
      this.offline = this.box.whenOnline(() => this.flush());
      this.show();
      this.flush();
    },

    // The form has been replaced: the one in its place goes on.
    destroy() {
      clearTimeout(this.waiting);
      this.offline();
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
