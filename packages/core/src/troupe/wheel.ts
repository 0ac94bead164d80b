/** A list of whole numbers that grows as it needs to, and keeps the room it has had. */
export class IntList {
  items = new Int32Array(4);
  length = 0;

  push(value: number): void {
    if (this.length === this.items.length) {
      const larger = new Int32Array(2 * this.length);
      larger.set(this.items);
      this.items = larger;
    }
    this.items[this.length++] = value;
  }
}

/** How many microseconds belong to a slot of the wheel, as a power of two: about 4 ms. */
const slotBits = 12;
const slotTime = 1 << slotBits;
/** How many slots there are: about 4 s go round. */
const slotCount = 1024;
/** A slot as it is noted of a member: in 31 bits, which come round after 101 days. */
const noted = (slot: number): number => slot & 0x7fff_ffff;

/** The owner of the members of a wheel. */
export interface Owner {
  /** Whether a member is due by now. */
  isDue(member: number): boolean;
  /** Does what is due for a member, and files it again. */
  visit(member: number): void;
  /** Files it again. */
  file(member: number): void;
}

/** Where a member is filed: the number of a slot since time began, or one of these. */
const enum Filed {
  nowhere = -1,
  /** Due too far ahead for the wheel. */
  far = -2,
}

/**
 * The members by the instant at which they are due: a wheel of slots for the instants of one turn, and a list for all later instants. So no
 * sleeping member is visited. A member that is filed again also stays in its old slot, and is skipped there.
 */
export class Wheel {
  private readonly slots = Array.from({ length: slotCount }, () => new IntList());
  private far = new IntList();
  private spare = new IntList();
  private filed = new Int32Array(0);
  /** The slot that is being passed now; none before the first member was filed. */
  private present = 0;
  /** The slot from which on the first of those far ahead is within a turn. */
  private nearSlot = Infinity;

  /** Makes room for so many members. */
  grow(count: number): void {
    const larger = new Int32Array(count).fill(Filed.nowhere);
    larger.set(this.filed);
    this.filed = larger;
  }

  /**
   * Files a member.
   *
   * @param due the place of its instant in the array of doubles
   */
  file(member: number, doubles: Float64Array, due: number): void {
    const slot = Math.max(this.present, Math.floor(doubles[due]! * (1 / slotTime)));
    const isFar = slot >= this.present + slotCount;
    const place = isFar ? Filed.far : noted(slot);
    if (this.filed[member] === place) return;
    this.filed[member] = place;
    if (isFar) {
      this.far.push(member);
      this.nearSlot = Math.min(this.nearSlot, slot - slotCount + 1);
    } else this.slots[slot & (slotCount - 1)]!.push(member);
  }

  /** Takes a member out. */
  remove(member: number): void {
    this.filed[member] = Filed.nowhere;
  }

  /**
   * Removes all members.
   *
   * @param now the present instant
   */
  clear(now: number): void {
    for (const slot of this.slots) slot.length = 0;
    this.far.length = 0;
    this.nearSlot = Infinity;
    this.filed.fill(Filed.nowhere);
    this.present = Math.floor(now / slotTime);
  }

  /**
   * Visits all members that are due up to an instant.
   *
   * @param until the place of that instant, in microseconds
   */
  pass(until: Float64Array, owner: Owner): void {
    const last = Math.floor(until[0]! / slotTime);
    // After a whole turn every slot has been passed once.
    const end = Math.min(last, this.present + slotCount - 1);
    for (let slot = this.present; slot <= end; slot++) {
      this.present = slot;
      this.passSlot(slot, owner);
      if (slot >= this.nearSlot) this.passFar(owner);
    }
    this.present = last;
    if (last >= this.nearSlot) this.passFar(owner);
  }

  private passSlot(slot: number, owner: Owner): void {
    const list = this.slots[slot & (slotCount - 1)]!;
    const { filed } = this;
    let kept = 0;
    // Who is visited may be filed in this slot again, behind all others.
    for (let i = 0; i < list.length; i++) {
      const member = list.items[i]!;
      if (filed[member] !== noted(slot)) continue;
      if (owner.isDue(member)) {
        filed[member] = Filed.nowhere;
        owner.visit(member);
      } else list.items[kept++] = member;
    }
    list.length = kept;
  }

  /** Files the members again that were too far ahead. */
  private passFar(owner: Owner): void {
    const list = this.far;
    this.far = this.spare;
    this.spare = list;
    this.far.length = 0;
    this.nearSlot = Infinity;
    for (let i = 0; i < list.length; i++) {
      const member = list.items[i]!;
      if (this.filed[member] !== Filed.far) continue;
      this.filed[member] = Filed.nowhere;
      if (owner.isDue(member)) owner.visit(member);
      else owner.file(member);
    }
  }
}
