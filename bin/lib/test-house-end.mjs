export default async function teardown() {
  await globalThis.radiantHouse?.stop();
}
