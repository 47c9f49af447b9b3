declare module '*.vue' {
  import type { DefineComponent } from 'vue'
  const component: DefineComponent<object, object, unknown>
  export default component
}
declare module 'vuetify/styles'
declare module '@fontsource-variable/atkinson-hyperlegible-next'
declare module '@fontsource-variable/atkinson-hyperlegible-mono'
