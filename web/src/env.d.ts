declare module '*.svg?raw' {
  const text: string;
  export default text;
}

declare module 'virtual:theme.css';

declare module 'virtual:notices' {
  const notices: {
    packages: { name: string; version: string; license: string; text?: number }[];
    texts: string[];
  };
  export default notices;
}
