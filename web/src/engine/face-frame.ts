/** Time that the model may take, its loading too, ms. */
const PATIENCE_MS = 40_000;
/** Wide enough for the model, which looks at a small picture; larger ones only take longer to hand over. */
const WIDTH_PX = 1000;

interface Answer {
  readonly id?: number;
  readonly ready?: boolean;
  readonly points?: Float32Array;
  readonly error?: string;
}

/** The frame without rights in which the model runs; kept for the next picture. */
let frame: Promise<HTMLIFrameElement> | undefined;
let asked = 0;

function opened(): Promise<HTMLIFrameElement> {
  frame ??= new Promise<HTMLIFrameElement>((done, failed) => {
    const made = document.createElement('iframe');
    made.setAttribute('sandbox', 'allow-scripts');
    made.src = '/face-mesh/frame.html';
    made.title = 'Looks for a face';
    made.hidden = true;
    const timer = setTimeout(() => {
      made.remove();
      frame = undefined;
      failed(new Error('The face model can’t be loaded.'));
    }, PATIENCE_MS);
    const hear = (e: MessageEvent<Answer>) => {
      if (e.source !== made.contentWindow || !e.data.ready) return;
      clearTimeout(timer);
      window.removeEventListener('message', hear);
      done(made);
    };
    window.addEventListener('message', hear);
    document.body.append(made);
  });
  return frame;
}

/**
 * The points of the face in a photograph, px of it: x and y in a row; nothing where none is seen. The picture stays in
 * the browser.
 * @throws Error with a sentence
 */
export async function faceIn(url: string): Promise<Float32Array | undefined> {
  const image = new Image();
  image.src = url;
  await image.decode();
  const scale = Math.min(1, WIDTH_PX / image.naturalWidth);
  const [width, height] = [Math.round(image.naturalWidth * scale), Math.round(image.naturalHeight * scale)];
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const pen = canvas.getContext('2d', { willReadFrequently: true });
  if (!pen) throw new Error('This browser can’t look at the picture.');
  pen.drawImage(image, 0, 0, width, height);
  const { data } = pen.getImageData(0, 0, width, height);
  const own = await opened();
  const id = ++asked;
  const points = await new Promise<Float32Array | undefined>((done, failed) => {
    const end = () => {
      clearTimeout(timer);
      window.removeEventListener('message', hear);
    };
    const timer = setTimeout(() => {
      end();
      failed(new Error('The face model takes too long here; set the points by hand.'));
    }, PATIENCE_MS);
    const hear = (e: MessageEvent<Answer>) => {
      if (e.source !== own.contentWindow || e.data.id !== id) return;
      end();
      if (e.data.error) failed(new Error('The face model does not run in this browser; set the points by hand.'));
      else done(e.data.points);
    };
    window.addEventListener('message', hear);
    own.contentWindow?.postMessage({ id, picture: { width, height, rgba: data.buffer } }, '*', [data.buffer]);
  });
  return points?.map((v) => v / scale);
}
