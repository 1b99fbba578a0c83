import type { Actor, Script } from '../simulation/world.ts'

const coats = {
  navy: { top: '#27364d', legs: '#3a3d44', hair: '#2b211c' },
  red: { top: '#8c3438', legs: '#2f3440', hair: '#5b4632' },
  green: { top: '#3f5b45', legs: '#2c2a33', hair: '#1f1b19' },
  grey: { top: '#4b4e55', legs: '#23262c', hair: '#8a8378' },
  ochre: { top: '#a77b32', legs: '#353b4a', hair: '#3a2b20' }
}

const adult = (id: number, from: number, colours: Actor['colours'], way: Actor['way'], speed = 1.35, height = 1.76): Actor => ({ id, kind: 'adult', from, speed, height, colours, way })

/** Skerrow Landing, camera *Slipway*, a morning: who walks along the quay, and who goes over the water's edge. */
export const slipwayMorning: Script = {
  name: 'Morning on the slipway',
  seconds: 64,
  fps: 10,
  width: 640,
  height: 360,
  camera: { height: 4.2, tilt: 13, fieldOfView: 36, aspect: 16 / 9 },
  shore: [{ x: -16, z: 14.4 }, { x: -2.8, z: 15.6 }, { x: 3.3, z: 16.2 }, { x: 18, z: 17.6 }],
  seed: 7,
  actors: [
    // Along the quay, landward of the edge: nobody wants to hear of these.
    adult(1, 4, coats.navy, [{ x: -9.5, z: 8.2 }, { x: 10, z: 8.6 }], 1.4),
    adult(2, 25, coats.red, [{ x: 10, z: 9 }, { x: -9.5, z: 8.4 }], 1.25, 1.68),
    // Down the ramp into the boat's reach, a pause, and back up.
    adult(3, 7, coats.green, [{ x: 5.6, z: 5.2 }, { x: 1.2, z: 11 }, { x: 0.6, z: 20.2, pause: 6 }, { x: 0.2, z: 11 }, { x: -6, z: 5 }], 1.45, 1.8),
    // Comes up from the water and goes inland.
    adult(4, 33, coats.ochre, [{ x: -0.6, z: 21.4 }, { x: -0.4, z: 12 }, { x: 6.2, z: 5 }], 1.3, 1.72),
    // Walks up to the edge, has a look, turns back.
    adult(5, 42, coats.grey, [{ x: -6.6, z: 5.2 }, { x: -3.8, z: 11.3, pause: 3 }, { x: -8, z: 5.2 }], 1.3, 1.78),
    { id: 6, kind: 'dog', from: 16, speed: 2.1, height: 0.62, colours: { top: '#4a3526', legs: '#3d2c20', hair: '#2c1f16' }, way: [{ x: -9, z: 9.8 }, { x: -1, z: 10.6, pause: 1 }, { x: 1.2, z: 18.4 }, { x: 2.4, z: 10.4 }, { x: 9.5, z: 9.2 }] },
    { id: 7, kind: 'gull', from: 50, speed: 4.5, height: 0.5, colours: { top: '#e9ecec', legs: '#d8a032', hair: '#9aa3a8' }, way: [{ x: -9, y: 2.4, z: 14 }, { x: 0, y: 1.2, z: 11.5 }, { x: 9, y: 3.4, z: 13 }] }
  ]
}
