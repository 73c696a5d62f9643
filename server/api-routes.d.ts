/** The routes under server/api, as the build finds them (nuxt.config.ts). */
declare module '#api-routes' {
  export const routes: readonly { readonly route: string; readonly method: string }[]
}
