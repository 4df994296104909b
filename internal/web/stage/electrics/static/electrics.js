document.addEventListener('alpine:init', () => {
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
});
