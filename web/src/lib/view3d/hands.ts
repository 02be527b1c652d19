// What turns a picture by hand: a drag, or the arrow keys where it has the focus. Spread onto its element.

const STEP = 0.18; // radians an arrow key
const DRAG = 0.01; // radians a pixel

const KEYS: Record<string, [number, number]> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, STEP],
  ArrowDown: [0, -STEP],
};

export function turnedByHand(turn: (around: number, tilt: number) => void) {
  let held: { x: number; y: number } | null = null;
  const letGo = () => (held = null);
  return {
    onkeydown(event: KeyboardEvent): void {
      const step = KEYS[event.key];
      if (!step) return;
      event.preventDefault();
      event.stopPropagation();
      turn(...step);
    },
    onpointerdown(event: PointerEvent): void {
      held = { x: event.clientX, y: event.clientY };
      (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    },
    onpointermove(event: PointerEvent): void {
      if (!held) return;
      turn((held.x - event.clientX) * DRAG, (event.clientY - held.y) * DRAG);
      held = { x: event.clientX, y: event.clientY };
    },
    onpointerup: letGo,
    onpointercancel: letGo,
  };
}
