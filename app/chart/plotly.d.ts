/** The little of the chart library that is used here; the package ships no types. */
declare module 'plotly.js-basic-dist-min' {
  interface Plotly {
    react(element: HTMLElement, data: readonly object[], layout: object, config: object): Promise<void>
    purge(element: HTMLElement): void
  }
  const plotly: Plotly
  export default plotly
}
