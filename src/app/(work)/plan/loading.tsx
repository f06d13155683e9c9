export { Loading as default } from '@/ui/primitives/loading';
