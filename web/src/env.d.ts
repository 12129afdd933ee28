declare module '*.svg?raw' {
  const text: string;
  export default text;
}

declare module 'virtual:theme.css';
