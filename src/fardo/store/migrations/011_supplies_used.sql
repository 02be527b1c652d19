-- What a parcel took off the stock: beside boxes and mailers the wrap, fill and tape that are counted, in thousandths.
UPDATE sending SET taken = json_object('boxes', json(taken)) WHERE taken <> '{}';
