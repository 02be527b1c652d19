// What every view in three dimensions stands on: a canvas, a lamp from above one shoulder, and how a shape is drawn.
import {
  AmbientLight,
  BufferAttribute,
  BufferGeometry,
  DirectionalLight,
  EdgesGeometry,
  OrthographicCamera,
  Scene,
  WebGLRenderer,
} from 'three';
import type { ShapeView } from '../api/client';

const CREASE_DEGREES = 25; // a round side's facets show no edge, a box's do

const STILL_MS = 160;
const FINE = 2; // drawn so many times as fine each way as it is shown, which smooths the edges
const BY_PROCESSOR = /swiftshader|llvmpipe|software|basic render/i;

export class Stage {
  readonly scene = new Scene();
  readonly camera = new OrthographicCamera(-1, 1, 1, -1, -10, 10);
  readonly #renderer: WebGLRenderer;
  /** Where the processor draws, smooth edges are too dear while something moves. */
  readonly #slow: boolean;
  #still = 0;

  /** Throws where the browser draws nothing in three dimensions. */
  constructor(canvas: HTMLCanvasElement) {
    this.#renderer = new WebGLRenderer({ canvas, alpha: true });
    const gl = this.#renderer.getContext();
    const info = gl.getExtension('WEBGL_debug_renderer_info');
    this.#slow = BY_PROCESSOR.test(
      String(gl.getParameter(info ? info.UNMASKED_RENDERER_WEBGL : gl.RENDERER)),
    );
    const sun = new DirectionalLight(0xffffff, 2.3);
    sun.position.set(-0.55, -1, 1.65);
    this.camera.up.set(0, 0, 1);
    this.scene.add(new AmbientLight(0xffffff, 1.2), sun);
  }

  /** Looks at the middle from so far around and so high above, radians, in a picture of that proportion. */
  look(aspect: number, around: number, tilt: number): void {
    const [x, y] = aspect > 1 ? [aspect, 1] : [1, 1 / aspect];
    Object.assign(this.camera, { left: -x, right: x, top: y, bottom: -y });
    const flat = Math.cos(tilt) * 5;
    this.camera.position.set(Math.sin(around) * flat, -Math.cos(around) * flat, Math.sin(tilt) * 5);
    this.camera.lookAt(0, 0, 0);
    this.camera.updateProjectionMatrix();
  }

  /** Draws it so wide and high; where that is slow, finely only once nothing has moved for a moment. */
  draw(width: number, height: number): void {
    clearTimeout(this.#still);
    this.#render(width, height, this.#slow ? 1 : FINE);
    if (this.#slow) this.#still = window.setTimeout(() => this.#render(width, height, FINE), STILL_MS);
  }

  #render(width: number, height: number, ratio: number): void {
    this.#renderer.setPixelRatio(ratio);
    this.#renderer.setSize(width, height, false);
    this.#renderer.render(this.scene, this.camera);
  }

  leave(): void {
    clearTimeout(this.#still);
    this.#renderer.dispose();
  }
}

/** A shape's surface, flat-faced, and the edges that are seen on it. */
export function drawn(shape: ShapeView): { faces: BufferGeometry; edges: BufferGeometry } {
  const whole = surface(shape);
  const faces = whole.toNonIndexed();
  faces.computeVertexNormals();
  const edges = new EdgesGeometry(whole, CREASE_DEGREES);
  whole.dispose();
  return { faces, edges };
}

/** A shape's surface moved outwards by so much along each of its axes, mm: what is wrapped round it. */
export function swollen(shape: ShapeView, by: readonly [number, number, number]): BufferGeometry {
  const whole = surface(shape);
  whole.computeVertexNormals();
  const [at, out] = [whole.getAttribute('position'), whole.getAttribute('normal')];
  for (let n = 0; n < at.count; n += 1) {
    at.setXYZ(
      n,
      at.getX(n) + out.getX(n) * by[0],
      at.getY(n) + out.getY(n) * by[1],
      at.getZ(n) + out.getZ(n) * by[2],
    );
  }
  whole.computeVertexNormals();
  return whole;
}

function surface(shape: ShapeView): BufferGeometry {
  const whole = new BufferGeometry();
  whole.setAttribute('position', new BufferAttribute(new Float32Array(shape.vertices_mm), 3));
  whole.setIndex(shape.faces);
  return whole;
}
