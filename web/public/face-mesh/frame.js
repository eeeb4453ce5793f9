// Finds a face in a picture. It runs in a frame without rights: the model's program evaluates text, which no page of
// ours may, and all that it can do here is answer with points.
'use strict';

let ready;

/** The model, set up once. */
function model() {
  ready ??= (async () => {
    const mesh = new FaceMesh({ locateFile: (name) => new URL(name, location.href).href });
    // Two more for the irises; on the processor, since not every machine has graphics hardware that it can use.
    mesh.setOptions({ useCpuInference: true, maxNumFaces: 1, refineLandmarks: true });
    await mesh.initialize();
    return mesh;
  })();
  return ready;
}

async function pointsIn({ width, height, rgba }) {
  const mesh = await model();
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  canvas.getContext('2d').putImageData(new ImageData(new Uint8ClampedArray(rgba), width, height), 0, 0);
  let found;
  mesh.onResults((r) => {
    found = r.multiFaceLandmarks?.[0];
  });
  // Each picture is another face: what was seen before must not lead.
  mesh.reset();
  await mesh.send({ image: canvas });
  return found && Float32Array.from(found.flatMap((p) => [p.x * width, p.y * height]));
}

window.addEventListener('message', (e) => {
  if (e.source !== parent) return;
  const { id, picture } = e.data;
  pointsIn(picture).then(
    (points) => parent.postMessage({ id, points }, '*'),
    (error) => parent.postMessage({ id, error: String(error?.message ?? error) }, '*'),
  );
});
parent.postMessage({ ready: true }, '*');
