declare module 'virtual:own-words' {
  const german: Record<string, string>;
  export default german;
}
