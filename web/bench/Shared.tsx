import type { ReactNode } from 'react'
import {
  ChoiceContext,
  ContentsContext,
  EvaluationContext,
  OnShowContext,
  type Choice,
  type Contents,
  type OnShow
} from './contexts.ts'
import type { Evaluation } from './evaluation.ts'

/** Gives the parts of the Bench what they share. */
export function Shared({
  contents,
  onShow,
  choice,
  evaluation,
  children
}: {
  contents: Contents
  onShow: OnShow
  choice: Choice
  evaluation: Evaluation
  children: ReactNode
}): ReactNode {
  return (
    <ContentsContext value={contents}>
      <OnShowContext value={onShow}>
        <ChoiceContext value={choice}>
          <EvaluationContext value={evaluation}>{children}</EvaluationContext>
        </ChoiceContext>
      </OnShowContext>
    </ContentsContext>
  )
}
