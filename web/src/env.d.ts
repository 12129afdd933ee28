declare module '*.svg?raw' {
  const text: string;
  export default text;
}
