// Words put into a field by pressing them: the bands of a resistor, without typing.
(() => {
  document.addEventListener('click', (event) => {
    const button = event.target.closest?.('[data-palette] button');
    const field = button && button.form?.elements[button.closest('[data-palette]').dataset.palette];
    if (!field) return;
    const words = field.value.split(/[\s,;]+/).filter((word) => word !== '');
    if (button.value === '') words.pop();
    else words.push(button.value);
    field.value = words.join(',');
    field.dispatchEvent(new Event('input', { bubbles: true }));
  });
})();
