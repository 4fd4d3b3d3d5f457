import { Select } from '@mantine/core';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { VehicleType } from '@decurio/core';
import { addUnitsRequest, type OrderPageView } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Busy, Notice } from '../../ui/notice.js';
import { slipsIn } from '../../ui/slips.js';
import classes from '../promise/order-form.module.css';

/** A serial that was scanned and is in no order: it is added to one, and goes to the bench. */
export function AddUnit() {
  const { serial = '' } = useParams();
  const navigate = useNavigate();
  const orders = api.useOrdersQuery(undefined).data?.items;
  const types = (api.useLibraryQuery('vehicleType').data ?? []).map((entry) => entry.document as VehicleType);
  const [orderId, setOrderId] = useState<string | null>(null);
  const [typeId, setTypeId] = useState<string | null>(null);
  const { data: view } = api.useOrderQuery(orderId ?? '', { skip: orderId === null });
  const [add, adding] = api.useAddUnitsMutation();
  const [find] = api.useLazyFindUnitQuery();
  const [readOrder] = api.useLazyOrderQuery();
  const [slip, setSlip] = useState<string | null>(null);
  if (!orders) return <Busy />;
  const chosen = typeId ?? (view && kindsIn(view)[0]?.typeId) ?? null;
  const submit = async () => {
    // Whoever is quicker than the answer is not told to choose what stands there in a moment.
    const order = view ?? (orderId === null ? undefined : (await readOrder(orderId, true)).data);
    const kinds = order ? kindsIn(order) : [];
    const type = typeId ?? kinds[0]?.typeId;
    if (orderId === null || type === undefined) return setSlip('Choose the order and the type first.');
    const mapId = kinds.find((each) => each.typeId === type)?.mapId ?? null;
    const body = { id: crypto.randomUUID(), units: [{ serial, typeId: type, mapId }] };
    const [first] = Object.values(slipsIn(addUnitsRequest, body));
    if (first !== undefined) return setSlip(first);
    const answer = await add({ id: orderId, body });
    if (!answer.data) return setSlip(asProblem(answer.error)?.message ?? null);
    const found = await find(serial);
    if (found.data) void navigate(`/bench/${found.data.id}`);
  };
  return (
    <form
      className={classes['page']}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <h1>{serial} is in no order</h1>
      <section className={classes['form']} aria-label="Add it to an order">
        <p>
          Hold the serial on the frame against this one. If it is right, say which order it belongs to; it then goes to
          the bench.
        </p>
        <div className={classes['row']}>
          <Select
            label="Order"
            data={orders.map((order) => ({ value: order.id, label: `${order.number}, ${order.customer}` }))}
            value={orderId}
            onChange={setOrderId}
            searchable
            placeholder="choose"
          />
          <Select
            label="Type"
            data={types.map((type) => ({ value: type.id, label: type.name }))}
            value={chosen}
            onChange={setTypeId}
            searchable
            placeholder="the order first"
          />
        </div>
        {slip !== null && <Notice kind="stop" says={slip} />}
        <div className={classes['acts']}>
          <ActButton type="submit" look="main" busy={adding.isLoading} onAct={() => undefined}>
            Add it and begin
          </ActButton>
          <Link to="/orders/new">It belongs to a new order</Link>
        </div>
      </section>
    </form>
  );
}

/** Types and displays of an order, those still to come first. */
const kindsIn = ({
  expected,
  groups,
}: OrderPageView): readonly { readonly typeId: string; readonly mapId: string }[] => [...expected, ...groups];
