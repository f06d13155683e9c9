import { MisfiresSection } from '../misfires-section';
import { OrdersSection } from '../orders-section';
import { vehiclePage } from '../vehicle-page';

export default vehiclePage(({ view, actor }) => (
  <div className="halves">
    <OrdersSection view={view} actor={actor} />
    <MisfiresSection view={view} actor={actor} />
  </div>
));
