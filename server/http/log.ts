/** One JSON line for each event. Never names, addresses, bodies or ids of people. */
export function writeLog(event: string, fields: Readonly<Record<string, string | number | undefined>>): void {
  console.log(JSON.stringify({ at: new Date().toISOString(), event, ...fields }))
}
