document.addEventListener('alpine:init', () => {
  // Dragging a job between others, or its grip with the arrow keys, asks for the order that this
  // makes; what comes of it lies on the bench before it is kept.
  window.Alpine.data('jobs', () => ({
    job: null, // the row that is dragged
    over: null, // the row that it would stand before

    rows() {
      return [...this.$root.querySelectorAll('[data-job]')];
    },

    down(event) {
      const grip = event.button === 0 && event.target.closest('[data-grip]');
      if (!grip) return;
      this.job = grip.closest('[data-job]');
      this.job.classList.add('is-dragged');
      grip.setPointerCapture(event.pointerId);
      event.preventDefault();
    },

    move(event) {
      if (!this.job) return;
      this.over = this.rows().find((row) => {
        const box = row.getBoundingClientRect();
        return event.clientY < box.top + box.height / 2;
      }) || null;
      this.rows().forEach((row) => row.classList.toggle('is-near', row === this.over));
      this.moved = true;
    },

    up() {
      const { job, over, moved } = this;
      this.leave();
      if (!job || !moved || over === job) return;
      const at = new URL(this.$root.dataset.turn, window.location.href);
      at.searchParams.append('job', job.dataset.job + '|' + (over ? over.dataset.job : ''));
      window.location.assign(at);
    },

    leave() {
      if (this.job) this.job.classList.remove('is-dragged');
      this.rows().forEach((row) => row.classList.remove('is-near'));
      this.job = this.over = null;
      this.moved = false;
    },

    key(event) {
      const row = event.target.closest('[data-grip]') && event.target.closest('[data-job]');
      const name = { ArrowUp: '[data-earlier]', ArrowDown: '[data-later]' }[event.key];
      const link = row && name && row.querySelector(name);
      if (!link) return;
      event.preventDefault();
      link.click();
    },
  }));
});

// A letter says what happened to the order in whose row the focus is.
document.addEventListener('keydown', (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest('input, select, textarea, dialog')) return;
  const row = event.target.closest('.order-row');
  const button = row && row.querySelector('[data-letter="' + CSS.escape(event.key) + '"]');
  if (!button) return;
  event.preventDefault();
  button.click();
});
