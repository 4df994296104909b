document.addEventListener('alpine:init', () => {
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
});
