import 'bootstrap-vue-next'

// Our own button looks, known to the library's types.
declare module 'bootstrap-vue-next' {
  interface BaseButtonVariant {
    plain: unknown
    sun: unknown
  }
}
