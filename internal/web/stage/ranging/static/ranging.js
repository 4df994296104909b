document.addEventListener('alpine:init', () => {
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
});

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
