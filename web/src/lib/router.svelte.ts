// The address is the room: /, /settings, /kinds, /cutting, /tariffs, /start, /jobs/<id>/<station>, /jobs/<id>/pack.
export const STATIONS = ['measure', 'protect', 'arrange', 'box', 'price', 'sent'] as const;
export type Station = (typeof STATIONS)[number];
/** One key a knot. */
export const KEYS: Record<Station, string> = {
  measure: 'm',
  protect: 'w',
  arrange: 'a',
  box: 'b',
  price: 'p',
  sent: 's',
};
/** The knots of a job; Pack has a page of its own. */
export const KNOTS = ['measure', 'protect', 'arrange', 'box', 'price', 'pack', 'sent'] as const;

export type Room =
  | { name: 'bench' }
  | { name: 'settings' }
  | { name: 'start' }
  | { name: 'kinds' }
  | { name: 'cutting' }
  | { name: 'tariffs' }
  | { name: 'job'; id: string; station: Station }
  | { name: 'pack'; id: string }
  | { name: 'nowhere' };

function read(path: string): Room {
  if (path === '/') return { name: 'bench' };
  if (path === '/settings') return { name: 'settings' };
  if (path === '/start') return { name: 'start' };
  if (path === '/kinds') return { name: 'kinds' };
  if (path === '/tariffs') return { name: 'tariffs' };
  if (path === '/cutting') return { name: 'cutting' };
  const job = /^\/jobs\/([^/]+)(?:\/([^/]+))?$/.exec(path);
  if (job?.[1] && job[2] === 'pack') return { name: 'pack', id: job[1] };
  const station = STATIONS.find((known) => known === (job?.[2] ?? 'measure'));
  if (job?.[1] && station) return { name: 'job', id: job[1], station };
  return { name: 'nowhere' };
}

class Router {
  room = $state<Room>(read(location.pathname));

  constructor() {
    addEventListener('popstate', () => (this.room = read(location.pathname)));
  }

  go(path: string): void {
    if (path !== location.pathname) history.pushState(null, '', path);
    this.room = read(path);
  }
}

export const router = new Router();

/** For links: stays in the page unless another window or tab is asked for. */
export function follow(event: MouseEvent): void {
  const link = (event.currentTarget as HTMLElement).closest('a');
  if (!link || event.button !== 0 || event.metaKey || event.ctrlKey || event.shiftKey || event.altKey) return;
  event.preventDefault();
  router.go(link.pathname);
}
