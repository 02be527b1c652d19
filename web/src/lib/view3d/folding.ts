// A blank that folds up around the goods: its panels turn about their scores together, the goods stand where they lie.
//
// Drawn in millimetres on the flat blank, z upwards, from above one corner; the panel that lies still stays where it is.
import {
  Box3,
  BoxGeometry,
  BufferGeometry,
  Color,
  DoubleSide,
  EdgesGeometry,
  Float32BufferAttribute,
  Group,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  Mesh,
  MeshLambertMaterial,
  Shape,
  ShapeGeometry,
  Vector2,
  Vector3,
} from 'three';
import type { FoldedBlank, FoldView } from '../api/client';
import { Stage } from './stage';

export interface FoldInks {
  board: string;
  boardDeep: string;
  thing: string;
  extra: string;
  ink: string;
}

const AROUND = 0.55; // of the slider: by then it stands around the goods, and is closed in the rest
const MARGIN = 1.02;
const TILT = 0.62;

export class Folding {
  readonly #stage: Stage;
  readonly #body = new Group();
  readonly #goods = new Group();
  readonly #board = new MeshLambertMaterial({ side: DoubleSide, transparent: true, opacity: 0.62 });
  readonly #edge = new LineBasicMaterial();
  readonly #thing = new MeshLambertMaterial();
  readonly #extra = new MeshLambertMaterial();
  readonly #ink = new LineBasicMaterial();
  #blank: FoldedBlank | null = null;
  #panels: Group[] = [];
  #first: boolean[] = [];
  #around = 0.62;
  #tilt = TILT;

  /** Throws where the browser draws nothing in three dimensions. */
  constructor(canvas: HTMLCanvasElement) {
    this.#stage = new Stage(canvas);
    this.#stage.scene.add(this.#body, this.#goods);
    this.#goods.matrixAutoUpdate = false;
  }

  get count(): number {
    return this.#panels.length;
  }

  paint(inks: FoldInks): void {
    this.#board.color = new Color(inks.board);
    this.#edge.color = new Color(inks.boardDeep);
    this.#thing.color = new Color(inks.thing);
    this.#extra.color = new Color(inks.extra);
    this.#ink.color = new Color(inks.ink);
  }

  show(view: FoldView, name: string): void {
    this.#empty();
    const blank = view.blanks.find((one) => one.name === name) ?? view.blanks[0];
    if (!blank) return;
    this.#blank = blank;
    for (const panel of blank.panels) {
      const points = panel.outline_mm.map(([x, y]) => new Vector2(x, y));
      const flat = new ShapeGeometry(new Shape(points));
      const rim = points.flatMap((point, n) => {
        const next = points[(n + 1) % points.length] ?? point;
        return [point.x, point.y, 0, next.x, next.y, 0];
      });
      const lines = new BufferGeometry();
      lines.setAttribute('position', new Float32BufferAttribute(rim, 3));
      const group = new Group();
      group.matrixAutoUpdate = false;
      group.add(new Mesh(flat, this.#board), new LineSegments(lines, this.#edge));
      this.#panels.push(group);
      this.#body.add(group);
    }
    if (blank.stands) {
      this.#goods.matrix.set(...(blank.stands.flat() as Parameters<Matrix4['set']>));
      for (const thing of view.things) {
        const box = new BoxGeometry(...thing.size_mm);
        const middle = thing.at_mm.map((at, n) => at + (thing.size_mm[n] ?? 0) / 2);
        const solid = new Mesh(box, thing.extra ? this.#extra : this.#thing);
        const rim = new LineSegments(new EdgesGeometry(box), this.#ink);
        for (const one of [solid, rim]) {
          one.position.set(middle[0] ?? 0, middle[1] ?? 0, middle[2] ?? 0);
          this.#goods.add(one);
        }
      }
    }
    this.#first = mainWay(blank);
  }

  /**
   * Folded so far: 0 flat, 1 closed. First what goes around the goods folds up, then what closes it; every panel turns
   * with the one it hangs on.
   */
  fold(whole: number): void {
    this.#blank?.panels.forEach((panel, n) => {
      const part = Math.min(
        1,
        Math.max(0, this.#first[n] ? whole / AROUND : (whole - AROUND) / (1 - AROUND)),
      );
      const group = this.#panels[n];
      if (!group) return;
      const on = this.#panels[panel.on];
      group.matrix.identity();
      if (!on) return;
      const [[x, y], [u, v]] = panel.hinge_mm;
      const axis = new Vector3(u - x, v - y, 0).normalize();
      const turn = new Matrix4().makeRotationAxis(axis, (panel.degrees * part * Math.PI) / 180);
      const there = new Matrix4().makeTranslation(x, y, 0);
      const back = new Matrix4().makeTranslation(-x, -y, 0);
      group.matrix.copy(on.matrix).multiply(there).multiply(turn).multiply(back);
    });
  }

  turn(around: number, tilt: number): void {
    this.#around += around;
    this.#tilt = Math.max(-1.2, Math.min(1.5, this.#tilt + tilt));
  }

  draw(width: number, height: number): void {
    this.#fit();
    this.#stage.look(width / height, this.#around, this.#tilt);
    this.#stage.draw(width, height);
  }

  /** Whatever it is folded to, it fills the view. */
  #fit(): void {
    const seen = new Box3();
    this.#blank?.panels.forEach((panel, n) => {
      const group = this.#panels[n];
      if (!group) return;
      for (const [x, y] of panel.outline_mm)
        seen.expandByPoint(new Vector3(x, y, 0).applyMatrix4(group.matrix));
    });
    if (seen.isEmpty()) return;
    const scale = 1 / ((seen.getSize(new Vector3()).length() / 2 || 1) * MARGIN);
    this.#stage.scene.scale.setScalar(scale);
    this.#stage.scene.position.copy(seen.getCenter(new Vector3())).multiplyScalar(-scale);
  }

  #empty(): void {
    for (const group of [...this.#panels, this.#goods]) {
      for (const child of [...group.children]) {
        if (child instanceof Mesh || child instanceof LineSegments)
          (child.geometry as BufferGeometry).dispose();
        group.remove(child);
      }
    }
    for (const group of this.#panels) this.#body.remove(group);
    this.#panels = [];
    this.#blank = null;
  }

  leave(): void {
    this.#empty();
    this.#stage.leave();
  }
}

/** Which panels go around the goods: those whose score runs the way of the longest chain of panels. */
function mainWay(blank: FoldedBlank): boolean[] {
  const upright = blank.panels.map(({ hinge_mm: [[x, y], [u, v]] }) => Math.abs(v - y) > Math.abs(u - x));
  const chain: number[] = [];
  const longest = { true: 0, false: 0 };
  blank.panels.forEach((panel, n) => {
    const way = upright[n] ?? false;
    chain[n] =
      panel.on < 0 ? 0 : 1 + (panel.on > 0 && upright[panel.on] === way ? (chain[panel.on] ?? 0) : 0);
    longest[`${way}`] = Math.max(longest[`${way}`], chain[n] ?? 0);
  });
  if (longest.true === longest.false) return upright.map(() => true);
  const main = longest.true >= longest.false;
  return upright.map((way) => way === main);
}
