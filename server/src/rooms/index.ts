export { RoomsModule } from './rooms.module.js';
export { RoomsService } from './rooms.service.js';
