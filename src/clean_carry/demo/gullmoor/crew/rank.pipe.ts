import { Pipe, PipeTransform } from '@angular/core';
import { Member } from './member';

/** How a member of the crew is called on board. */
@Pipe({ name: 'gfRank', standalone: true })
export class RankPipe implements PipeTransform {
  transform(member: Member, short = false): string {
    const rank = member.rank ?? 'hand';
    return short ? rank.slice(0, 1).toUpperCase() : rank;
  }
}
