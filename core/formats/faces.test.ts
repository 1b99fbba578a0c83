import { describe, expect, test } from '@jest/globals'
import { faceKey } from '../targets/faces.ts'
import { readFaces, writeFaces } from './faces.ts'

const size = { width: 640, height: 360 }

describe('faces as text', () => {
  test('reads back what it writes', () => {
    const faces = new Map([
      [faceKey(12, 3), { x: 0.5, y: 0.25, w: 0.03125, h: 0.0625, mask: true, name: null }],
      [faceKey(12, 4), { x: 0.1, y: 0.2, w: 0.05, h: 0.1, mask: false, name: 'Isla Brae' }],
      [faceKey(13, 3), { x: 0.5, y: 0.25, w: 0.03125, h: 0.0625, mask: null, name: null }]
    ])
    const text = writeFaces(faces, size)
    expect(text.split('\n')[0]).toBe('12,3,320,90,20,22.5,with,')
    expect([...readFaces(text, size)]).toEqual([...faces])
  })

  test('mask and name are optional', () => {
    expect(readFaces('\uFEFF5,1,0,0,64,36\r\n\r\n', size).get(faceKey(5, 1))).toEqual({
      x: 0,
      y: 0,
      w: 0.1,
      h: 0.1,
      mask: null,
      name: null
    })
    expect(readFaces('', size).size).toBe(0)
  })

  test.each([
    ['5,1,0,0', 'line 1: has 4 columns'],
    ['5,1,0,0,64,tall', 'line 1, column 6: is "tall"; must be a number'],
    [
      '5,1,0,0,64,36\n5,2,0,0,64,36,perhaps',
      'line 2, mask: is "perhaps"; must be with, without, or empty'
    ]
  ])('refuses %j', (text, message) => expect(() => readFaces(text, size)).toThrowWords(message))
})
