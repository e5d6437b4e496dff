import type { LiveEvent } from '@coomb/contract';
import { groupBy } from '@coomb/core';
import { Injectable } from '@nestjs/common';
import { Observable, Subject } from 'rxjs';

interface Listener {
  person: string;
  /** The window that listens, as it calls itself. */
  window: string | undefined;
  item: string | null;
  writing: boolean;
  events: Subject<LiveEvent>;
}

/** Who looks at a project now, and what they are told. */
@Injectable()
export class LiveService {
  private readonly listeners = new Map<string, Set<Listener>>();

  publish(projectId: string, event: LiveEvent): void {
    for (const listener of this.listeners.get(projectId) ?? []) listener.events.next(event);
  }

  listen(
    projectId: string,
    { person, window }: { person: string; window?: string | undefined },
    { seq, life }: { seq: number; life: string },
  ): Observable<LiveEvent> {
    return new Observable((subscriber) => {
      const listener: Listener = { person, window, item: null, writing: false, events: new Subject() };
      const all = this.listeners.get(projectId) ?? new Set();
      this.listeners.set(projectId, all.add(listener));
      const subscription = listener.events.subscribe(subscriber);
      subscriber.next({ type: 'hello', seq, life });
      this.tellPeople(projectId);
      return () => {
        subscription.unsubscribe();
        all.delete(listener);
        if (all.size === 0) this.listeners.delete(projectId);
        this.tellPeople(projectId);
      };
    });
  }

  /** A window shows another item, or somebody begins or ends to write in it. */
  sayWhere(projectId: string, { window, item, writing }: { window: string; item: string | null; writing: boolean }): void {
    let moved = false;
    for (const listener of this.listeners.get(projectId) ?? []) {
      if (listener.window !== window || (listener.item === item && listener.writing === writing)) continue;
      Object.assign(listener, { item, writing });
      moved = true;
    }
    if (moved) this.tellPeople(projectId);
  }

  private tellPeople(projectId: string): void {
    const byName = groupBy(
      [...(this.listeners.get(projectId) ?? [])].filter((listener) => listener.person),
      (listener) => listener.person,
    );
    const people = [...byName]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([name, own]) => ({
        name,
        items: [...new Set(own.flatMap(({ item }) => item ?? []))],
        writing: [...new Set(own.flatMap(({ item, writing }) => (writing && item !== null ? [item] : [])))],
      }));
    this.publish(projectId, { type: 'people', people });
  }
}
