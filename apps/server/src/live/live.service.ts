import type { LiveEvent } from '@coomb/contract';
import { Injectable } from '@nestjs/common';
import { Observable, Subject } from 'rxjs';

interface Listener {
  person: string;
  events: Subject<LiveEvent>;
}

/** Who looks at a project now, and what they are told. */
@Injectable()
export class LiveService {
  private readonly listeners = new Map<string, Set<Listener>>();

  publish(projectId: string, event: LiveEvent): void {
    for (const listener of this.listeners.get(projectId) ?? []) listener.events.next(event);
  }

  listen(projectId: string, person: string, { seq, life }: { seq: number; life: string }): Observable<LiveEvent> {
    return new Observable((subscriber) => {
      const listener: Listener = { person, events: new Subject() };
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

  private tellPeople(projectId: string): void {
    const people = [...new Set([...(this.listeners.get(projectId) ?? [])].map((listener) => listener.person))].filter(Boolean).sort();
    this.publish(projectId, { type: 'people', people });
  }
}
