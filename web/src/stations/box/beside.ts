// A box as it stands beside another.
import type { WayView } from '../../lib/api/client';

export interface BoxBeside {
  key: string;
  name: string;
  total: string;
  service: string;
  own: string;
  inside: string;
  outside: string;
  room: string;
  weight: string;
  air: string;
  minutes: string;
  takes: string;
}

export function ofWay(way: WayView): BoxBeside {
  return {
    key: way.way,
    name: way.item ? `${way.title}, ${way.item}` : way.title,
    total: way.too_large ? '' : (way.total ?? ''),
    service: way.quotes[0]?.service ?? '',
    own: way.own,
    inside: way.inside.figure.text,
    outside: way.outside.figure.text,
    room: way.at_hand.find((one) => one.picked)?.room ?? '',
    weight: way.weight.text,
    air: `${way.air_percent} %`,
    minutes: String(way.minutes),
    takes: way.at_hand.find((one) => one.picked)?.takes ?? '',
  };
}

export function ofItem(way: WayView, one: WayView['at_hand'][number]): BoxBeside {
  return {
    key: `${way.way}/${one.item}`,
    name: one.item,
    total: one.total ?? '',
    service: one.service,
    own: one.own,
    inside: one.inside,
    outside: one.outside,
    room: one.room,
    weight: one.weight,
    air: `${one.air_percent} %`,
    minutes: String(one.minutes),
    takes: one.takes,
  };
}
