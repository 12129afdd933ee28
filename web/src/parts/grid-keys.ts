/** Arrow up and down, and Enter, move between the same fields of neighbouring rows of a table. */
export function onGridKeys(event: KeyboardEvent): void {
  const down = event.key === 'ArrowDown' || event.key === 'Enter';
  if (!down && event.key !== 'ArrowUp') return;
  const target = event.target as HTMLElement;
  const cell = target.closest('td');
  const row = cell?.parentElement;
  if (!target.matches('input') || cell == null || row == null) return;
  const index = [...row.children].indexOf(cell);
  const next = (down ? row.nextElementSibling : row.previousElementSibling)?.children[index];
  const field = next?.querySelector<HTMLInputElement>('input');
  if (field == null) return;
  event.preventDefault();
  field.focus();
  field.select();
}
