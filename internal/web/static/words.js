// So many things, in words.
export const some = (n, one, many) => n + ' ' + (n === 1 ? one : many);

// A button of words that does something here.
export const linkButton = (words, act) => {
  const button = document.createElement('button');
  button.type = 'button';
  button.className = 'link-act';
  button.textContent = words;
  button.addEventListener('click', act);
  return button;
};
