import { messages } from '../../messages.ts'

export const proving = messages({
  sceneAnswers: (status: number) => `the scene answered with ${status}`,
  namesAndThe: (detection: string) => `names "${detection}", which is not on this camera`,
  thisCheckLooksAtA: 'This check uses a clip. Run it instead.',
  thereIsNoSimulatedScene: 'There is no simulated scene. Use a walk on site.',
  aWalkTestGoesOn: 'A walk test is already running on this camera. Stop it first.',
  thisWalkTestHasEnded: 'This walk test has ended.',
  checksAreBeingRunAlready: 'Checks are already running. Stop that run first.',
  needsAPersonOn: (name: string) => `${name} needs a walk on site. Start it under Walk live.`,
  thisRunHasNotBeen: 'This run has not been stopped.',
  mustBeTheIdOf: 'must be the id of a camera',
  mustBeTheIdOf2: 'must be the id of a check',
  mustBeAListOf: 'must be a list of checks'
})
