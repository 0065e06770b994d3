declare module 'fast-json-patch/module/core.mjs' {
  export * from 'fast-json-patch/module/core'
}
