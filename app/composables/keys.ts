/** Whether a key belongs to where it was pressed: a field, a list of choices, a dialog. */
export const belongsElsewhere = (event: KeyboardEvent): boolean =>
  (event.target as HTMLElement).closest(
    'input:not([type="radio"], [type="checkbox"]), textarea, select, [contenteditable], [role="dialog"], ' +
      '[role="alertdialog"], [role="listbox"], .v-overlay',
  ) !== null

/** Ctrl, or Cmd. */
export const isCommand = (event: KeyboardEvent): boolean => (event.ctrlKey || event.metaKey) && !event.altKey

/** Text is selected on the page: Ctrl-C is for that. */
export const hasSelectedText = (): boolean => (window.getSelection()?.toString() ?? '') !== ''
