/** Ends the browser and the house of a lane. */
export default async function down() {
  await (await globalThis.radiantBrowser)?.close();
  await globalThis.radiantHouse?.stop();
}
