/** Which poles contactors open, as it is chosen in tables. */
export const polesChoices = [
  { value: 'both', text: 'both' },
  { value: 'plus', text: '+ only' },
  { value: 'minus', text: '− only' },
  { value: 'none', text: 'none' },
];

/** How cables pass the walls. */
export const endsChoices = [
  { value: 'interlocked', text: 'interlocked plugs' },
  { value: 'plain', text: 'plain plugs' },
  { value: 'gland', text: 'glands' },
];
