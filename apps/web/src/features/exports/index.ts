export { SaveAs, SaveChosen } from './SaveAs';
