// A page that the browser or its worker has kept is shown again only while its rider is signed in here. It
// runs before anything is drawn.
(() => {
  const made = document.documentElement.dataset.who;
  const here = () => (document.cookie.match(/(?:^|; )(?:__Host-)?who=([^;]*)/) || [])[1];
  const gate = () => {
    if (!made || made === here()) return;
    document.documentElement.hidden = true;
    const forgets = 'caches' in window ? caches.delete('pages ' + made) : Promise.resolve();
    forgets.finally(() => location.replace('/'));
  };
  const [way] = performance.getEntriesByType('navigation');
  if ((way && way.type === 'back_forward') || document.documentElement.dataset.kept) gate();
  window.addEventListener('pageshow', (event) => { if (event.persisted) gate(); });
})();
