// The yardstick: the same character as in bench/character.mjs, written by hand the way games usually do it:
// one class, one chain of ifs, one accumulator.
const frames = { stand: 8, walk: 8, run: 8, takeoff: 4, rise: 2, fall: 2, land: 3, swing: 6, hurt: 4 };
const times = {
  stand: 125,
  walk: 90,
  run: 70,
  takeoff: 40,
  rise: 110,
  fall: 100,
  land: 70,
  swing: 70,
  hurt: 110,
};

export class HandWritten {
  vx = 0;
  vy = 0;
  grounded = true;
  facing = 1;
  state = 'stand';
  frame = 0;
  elapsed = 0;
  over = false;
  moving = false;
  fast = false;
  jumpLeft = 0;
  swingLeft = 0;
  hurt = false;
  cues = 0;

  jump() {
    this.jumpLeft = 120;
  }

  swing() {
    this.swingLeft = 200;
  }

  step(dt) {
    const speed = Math.abs(this.vx);
    this.moving = this.moving ? speed >= 8 : speed > 12;
    this.fast = this.fast ? speed >= 80 : speed > 95;
    if (this.vx >= 6) this.facing = 1;
    else if (this.vx <= -6) this.facing = -1;
    this.decide();
    this.elapsed += dt;
    let time = times[this.state];
    while (this.elapsed >= time) {
      if (this.over) break;
      this.elapsed -= time;
      if (this.frame + 1 < frames[this.state]) this.frame++;
      else if (this.isAct()) {
        this.over = true;
        this.decide();
        time = times[this.state];
      } else this.frame = 0;
      if ((this.state === 'run' || this.state === 'walk') && (this.frame === 0 || this.frame === 4))
        this.cues++;
    }
    if (this.jumpLeft > 0) this.jumpLeft -= dt;
    if (this.swingLeft > 0) this.swingLeft -= dt;
  }

  isAct() {
    return (
      this.state === 'takeoff' || this.state === 'land' || this.state === 'swing' || this.state === 'hurt'
    );
  }

  decide() {
    const acting = this.isAct() && !this.over;
    if (this.hurt) {
      this.hurt = false;
      this.enter('hurt');
    } else if (acting && this.state === 'hurt') return;
    else if (this.swingLeft > 0 && !(acting && this.state === 'swing') && this.grounded) {
      this.swingLeft = 0;
      this.enter('swing');
    } else if (acting && this.state === 'swing') return;
    else if (this.jumpLeft > 0 && this.grounded && !(acting && this.state === 'takeoff')) {
      this.jumpLeft = 0;
      this.enter('takeoff');
    } else if (acting && this.state === 'takeoff') return;
    else if (!this.grounded) this.show(this.vy < 0 ? 'rise' : 'fall');
    else if (this.state === 'fall') this.enter('land');
    else if (acting && this.state === 'land') return;
    else if (this.fast) this.show('run');
    else if (this.moving) this.show('walk');
    else this.show('stand');
  }

  show(state) {
    if (this.state !== state) this.enter(state);
  }

  enter(state) {
    this.state = state;
    this.frame = 0;
    this.elapsed = 0;
    this.over = false;
  }
}
