export { default } from './index';
