import { useEffect, useState } from 'react';
import { useSayWhere } from '../shared/live/presence';
import { useFirstAtHand } from '../shared/marks/at-hand';

/** Milliseconds that somebody rests on an item before the others are told. */
const RESTS = 350;

/** Tells others which item this window has at hand, where no sheet tells it. */
export function SayAtHand({ project }: { project: string }) {
  const item = useFirstAtHand();
  const [rested, setRested] = useState<string>();
  useEffect(() => {
    const timer = setTimeout(() => setRested(item), RESTS);
    return () => clearTimeout(timer);
  }, [item]);
  return rested !== undefined && rested === item ? <Say project={project} item={rested} /> : null;
}

function Say({ project, item }: { project: string; item: string }) {
  useSayWhere(project, item, false);
  return null;
}
