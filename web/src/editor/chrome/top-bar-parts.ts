/** Parts of the top bar that have nothing to show before the page is there. */
export { ProblemsButton } from '../problems/problems-button.tsx'
export { OthersHere } from './others-here.tsx'
