import { messages } from '../../messages.ts'

export const proving = messages({
  sceneAnswers: (status: number) => `the scene answered with ${status}`,
  namesAndThe: (detection: string) => `names "${detection}", which is not on this camera`,
  thisCheckLooksAtA: 'This check uses a clip. Run it instead.',
  thereIsNoSimulatedScene: 'There is no simulated scene. Use a walk on site.',
  aWalkTestGoesOn: 'A walk test is already running on this camera. Stop it first.',
  anotherWalkGoesOn: 'Another walk test is running on this camera. Wait until it has ended.',
  phoneCodeIsOver:
    'This code has been used, has expired or was revoked. Make a new one at the desk.',
  phoneIsOut: 'This phone’s access has ended. Make a new code at the desk.',
  thisWalkTestHasEnded: 'This walk test has ended.',
  checksAreBeingRunAlready: 'Checks are already running. Stop that run first.',
  needsAPersonOn: (name: string) => `${name} needs a walk on site. Start it under Walk live.`,
  thisRunHasNotBeen: 'This run has not been stopped.',
  mustBeTheIdOf: 'must be the id of a camera',
  mustBeTheIdOf2: 'must be the id of a check',
  mustBeAListOf: 'must be a list of checks'
})
