/**
 * The tables as the migrations make them, written by `npm run tables`: the type of each column as the driver reads it,
 * those that a new row must have, and those that the database works out by itself.
 */
export interface Tables {
  activity: {
    row: {
      id: number;
      at: Date;
      device_at: Date | null;
      person_id: number | null;
      device_id: number | null;
      site_id: number | null;
      command_id: string | null;
      kind: string;
      glyph: string;
      title: string;
      detail: string;
      document: string | null;
      how: string | null;
      undo_data: unknown;
      undone_by: number | null;
    };
    needs: 'kind' | 'glyph' | 'title';
    computed: never;
  };
  act_picture: {
    row: { id: number; command_id: string; site_id: number; at: Date; type: string; picture: Buffer };
    needs: 'command_id' | 'site_id' | 'type' | 'picture';
    computed: never;
  };
  announced_goods: {
    row: {
      id: number;
      arrival_id: number;
      sscc: string | null;
      order_line_id: number | null;
      item_id: number;
      lot_code: string | null;
      expires_on: string | null;
      units: number;
    };
    needs: 'arrival_id' | 'item_id' | 'units';
    computed: never;
  };
  arrival: {
    row: {
      id: number;
      code: string;
      site_id: number;
      supplier_id: number | null;
      state: string;
      expected_on: string | null;
      paper: string;
      advice: string | null;
      opened_at: Date | null;
      opened_by: number | null;
      closed_at: Date | null;
      closed_by: number | null;
      version: number;
      door_id: number | null;
    };
    needs: 'code' | 'site_id';
    computed: never;
  };
  arrival_order: { row: { arrival_id: number; order_id: number }; needs: 'arrival_id' | 'order_id'; computed: never };
  back_test: {
    row: {
      id: number;
      site_id: number;
      asked_by_id: number;
      asked_at: Date;
      due_at: Date | null;
      total: number;
      done: number;
      after_item_id: number;
      result: unknown;
    };
    needs: 'site_id' | 'asked_by_id' | 'total' | 'result';
    computed: never;
  };
  balance: {
    row: {
      item_id: number;
      place_id: number;
      lot_id: number;
      stock_condition: string;
      units: number;
      bounded: number;
      site_id: number | null;
    };
    needs: 'item_id' | 'place_id' | 'units' | 'bounded';
    computed: never;
  };
  barcode: { row: { id: number; code: string; pack_unit_id: number }; needs: 'code' | 'pack_unit_id'; computed: never };
  bill: {
    row: {
      id: number;
      code: string;
      supplier_id: number;
      ref: string;
      state: string;
      billed_on: string;
      due_on: string | null;
      currency: string;
      rate: string;
      note: string;
      entered_by: number;
      entered_at: Date;
      posted_by: number | null;
      posted_at: Date | null;
      version: number;
    };
    needs: 'code' | 'supplier_id' | 'ref' | 'billed_on' | 'currency' | 'rate' | 'entered_by';
    computed: never;
  };
  bill_line: {
    row: {
      id: number;
      bill_id: number;
      line: number;
      order_line_id: number | null;
      order_id: number | null;
      says: string;
      units: number | null;
      amount: string;
      shared_by: string | null;
    };
    needs: 'bill_id' | 'line' | 'amount';
    computed: never;
  };
  book_change: { row: { kind: string; ref: number; version: string | null }; needs: 'kind' | 'ref'; computed: never };
  book_head: { row: { id: number; version: string }; needs: 'id' | 'version'; computed: never };
  build: {
    row: {
      id: number;
      code: string;
      site_id: number;
      item_id: number;
      units: number;
      state: string;
      apart: number;
      place_id: number;
      note: string;
      built_units: number;
      labour_minutes: number | null;
      labour_cost: string | null;
      parts_cost: string | null;
      made_by_id: number | null;
      made_at: Date;
      built_by_id: number | null;
      built_at: Date | null;
      version: number;
    };
    needs: 'code' | 'site_id' | 'item_id' | 'units' | 'place_id';
    computed: never;
  };
  build_part: {
    row: {
      id: number;
      build_id: number;
      item_id: number;
      units: number;
      gathered_units: number;
      used_units: number;
      scrapped_units: number;
    };
    needs: 'build_id' | 'item_id' | 'units';
    computed: never;
  };
  buying_choice: {
    row: {
      id: number;
      site_id: number;
      item_id: number;
      chosen_on: string;
      says: string;
      proposed_units: number;
      taken_units: number;
      expected_units: number;
      horizon_days: number;
      until_on: string | null;
      why: string;
      document: string | null;
      person_id: number;
      made_at: Date;
      is_over: number;
    };
    needs: 'site_id' | 'item_id' | 'chosen_on' | 'says' | 'proposed_units' | 'person_id';
    computed: never;
  };
  buying_day: {
    row: { site_id: number; day: string; item_id: number; units: number };
    needs: 'site_id' | 'day' | 'item_id' | 'units';
    computed: never;
  };
  buying_rule: {
    row: {
      id: number;
      item_id: number | null;
      class: string | null;
      site_id: number | null;
      service_percent: string | null;
      review_days: number | null;
      supplier_id: number | null;
      like_item_id: number | null;
      like_percent: number | null;
      is_fixed: number;
      is_dropped: number;
      version: number;
      rule_of: string | null;
      room_units: number | null;
    };
    needs: never;
    computed: 'rule_of';
  };
  came_back: {
    row: {
      id: number;
      line_id: number;
      lot_id: number;
      number: string | null;
      units: number;
      came_as: string;
      fate: string;
      note: string;
      place_id: number;
      movement_id: string;
      scrapped_id: string | null;
      given_back_id: string | null;
      person_id: number;
      at: Date;
      undone_at: Date | null;
    };
    needs: 'line_id' | 'units' | 'came_as' | 'fate' | 'place_id' | 'movement_id' | 'person_id';
    computed: never;
  };
  came_back_picture: {
    row: { id: number; return_id: number; type: string; picture: Buffer; person_id: number; at: Date };
    needs: 'return_id' | 'type' | 'picture' | 'person_id';
    computed: never;
  };
  carrier: {
    row: { id: number; code: string; name: string; base_url: string | null; api_key: string | null; version: number };
    needs: 'code' | 'name';
    computed: never;
  };
  carrier_lane: {
    row: { carrier_id: number; site_id: number; place_id: number };
    needs: 'carrier_id' | 'site_id' | 'place_id';
    computed: never;
  };
  carrier_poll: {
    row: { id: number; carrier_id: number; seen: string; asked_at: Date | null; why: string | null };
    needs: 'carrier_id';
    computed: never;
  };
  carrier_service: {
    row: { carrier_id: number; code: string; name: string; days: number; price: string; most_g: number };
    needs: 'carrier_id' | 'code' | 'name' | 'days' | 'price' | 'most_g';
    computed: never;
  };
  carton: {
    row: {
      code: string;
      length_mm: number;
      width_mm: number;
      height_mm: number;
      tare_g: number;
      most_g: number;
      cost: string;
      low_at: number;
      version: number;
      item_id: number | null;
    };
    needs: 'code' | 'length_mm' | 'width_mm' | 'height_mm' | 'tare_g' | 'most_g';
    computed: never;
  };
  carton_stock: { row: { carton: string; site_id: number; units: number }; needs: 'carton' | 'site_id' | 'units'; computed: never };
  channel: {
    row: {
      id: number;
      code: string;
      name: string;
      kind: string;
      site_id: number;
      base_url: string | null;
      secret: string | null;
      poll_cursor: string;
      polled_at: Date | null;
      poll_error: string | null;
      version: number;
      check_over: string | null;
      share_percent: number;
      scarce_under: number;
      paused: number;
      next_poll_at: Date | null;
      next_push_at: Date | null;
      push_tries: number;
      push_error: string | null;
      answered_at: Date | null;
      prices_hold_tax: number;
    };
    needs: 'code' | 'name' | 'kind' | 'site_id';
    computed: never;
  };
  channel_exchange: {
    row: {
      id: number;
      channel_id: number;
      at: Date;
      direction: string;
      what: string;
      ref: string | null;
      went: string;
      detail: string;
      raw: string | null;
    };
    needs: 'channel_id' | 'direction' | 'what' | 'went';
    computed: never;
  };
  channel_site: { row: { channel_id: number; site_id: number }; needs: 'channel_id' | 'site_id'; computed: never };
  checklist: { row: { id: number; name: string; version: number }; needs: 'name'; computed: never };
  checklist_check: {
    row: { checklist_id: number; no: number; says: string; kind: string; unit: string; low: string | null; high: string | null };
    needs: 'checklist_id' | 'no' | 'says' | 'kind';
    computed: never;
  };
  claim: {
    row: {
      id: number;
      parcel_id: number;
      kind: string;
      state: string;
      note: string;
      asked: string | null;
      paid: string | null;
      opened_at: Date;
      changed_at: Date;
      version: number;
      open_parcel: number | null;
    };
    needs: 'parcel_id' | 'kind';
    computed: 'open_parcel';
  };
  command: {
    row: {
      id: string;
      name: string;
      body_hash: string;
      person_id: number | null;
      sent_by: number | null;
      device_id: number | null;
      device_at: Date | null;
      server_at: Date;
      done: number;
      result: unknown;
    };
    needs: 'id' | 'name' | 'body_hash' | 'done';
    computed: never;
  };
  company_mark: {
    row: { id: number; png: Buffer; width: number; height: number };
    needs: 'id' | 'png' | 'width' | 'height';
    computed: never;
  };
  container_move: {
    row: {
      id: number;
      place_id: number;
      from_parent_id: number | null;
      to_parent_id: number | null;
      from_site_id: number;
      to_site_id: number;
      person_id: number | null;
      at: Date;
    };
    needs: 'place_id' | 'from_site_id' | 'to_site_id';
    computed: never;
  };
  cost_layer: {
    row: {
      id: string;
      item_id: number;
      movement_id: string | null;
      document: string | null;
      units: number;
      units_left: number;
      value: string;
      value_left: string;
      at: Date;
    };
    needs: 'item_id' | 'units' | 'units_left' | 'value' | 'value_left';
    computed: never;
  };
  cost_layer_part: {
    row: { id: string; layer_id: string; kind: string; says: string; document: string | null; amount: string };
    needs: 'layer_id' | 'kind' | 'says' | 'amount';
    computed: never;
  };
  cost_pool: { row: { item_id: number; units: number; value: string }; needs: 'item_id'; computed: never };
  count_bin: {
    row: {
      id: number;
      count_id: number;
      place_id: number;
      area: string;
      position: number;
      state: string;
      person_id: number | null;
      not_person_id: number | null;
      begun_by_id: number | null;
      device_id: number | null;
      counted_at: Date | null;
      live: number | null;
    };
    needs: 'count_id' | 'place_id';
    computed: never;
  };
  count_code: {
    row: {
      id: number;
      count_id: number;
      place_id: number;
      code: string;
      units: number;
      person_id: number | null;
      looked_at: Date;
      settled_at: Date | null;
    };
    needs: 'count_id' | 'place_id' | 'code' | 'units' | 'looked_at';
    computed: never;
  };
  count_line: {
    row: {
      id: number;
      count_id: number;
      place_id: number;
      item_id: number;
      lot_id: number;
      damaged: number;
      listed: number;
      state: string;
      counted_units: number | null;
      looked_at: Date | null;
      person_id: number | null;
      how: string | null;
      expected_units: number | null;
      unit_cost: string | null;
      within_limits: number | null;
      reason: string | null;
      settled_by_id: number | null;
      settled_at: Date | null;
      version: number;
    };
    needs: 'count_id' | 'place_id' | 'item_id';
    computed: never;
  };
  count_look: {
    row: { id: number; line_id: number; counted_units: number; looked_at: Date; person_id: number | null };
    needs: 'line_id' | 'counted_units' | 'looked_at';
    computed: never;
  };
  count_rule: {
    row: {
      id: number;
      class: string | null;
      item_id: number | null;
      interval_days: number | null;
      units: number | null;
      value: string | null;
      units_percent: string | null;
      value_percent: string | null;
      version: number;
      level_key: string | null;
    };
    needs: never;
    computed: 'level_key';
  };
  currency: { row: { code: string; rate: string; as_of: string }; needs: 'code' | 'rate' | 'as_of'; computed: never };
  customer: {
    row: {
      id: number;
      code: string;
      name: string;
      email: string;
      phone: string;
      address_line: string;
      city: string;
      postcode: string;
      country: string;
      note: string;
      version: number;
      terms_days: number;
      whole_only: number;
      tax_code: string | null;
      tax_number: string;
      currency: string | null;
    };
    needs: 'code' | 'name';
    computed: never;
  };
  customer_address: {
    row: { id: number; customer_id: number; name: string; address_line: string; city: string; postcode: string; country: string };
    needs: 'customer_id' | 'name';
    computed: never;
  };
  customer_price: {
    row: { id: number; customer_id: number; item_id: number; factor: number; price: string };
    needs: 'customer_id' | 'item_id' | 'price';
    computed: never;
  };
  customer_return: {
    row: {
      id: number;
      code: string;
      site_id: number;
      order_id: number | null;
      customer: string;
      email: string;
      state: string;
      wish: string | null;
      told_by: string;
      channel_ref: string | null;
      note: string;
      announced_at: Date;
      came_at: Date | null;
      settled_at: Date | null;
      settled_as: string | null;
      settled_why: string;
      settled_by: number | null;
      amount: string | null;
      exchange_order_id: number | null;
      went_with: string | null;
      version: number;
    };
    needs: 'code' | 'site_id' | 'state' | 'told_by';
    computed: never;
  };
  customer_return_line: {
    row: {
      id: number;
      return_id: number;
      line: number;
      order_line_id: number | null;
      item_id: number;
      announced: number;
      reason: string;
      note: string;
    };
    needs: 'return_id' | 'line' | 'item_id' | 'reason';
    computed: never;
  };
  daily_run: {
    row: {
      id: number;
      site_id: number;
      runs_at: string;
      van_at: string | null;
      channel_id: number | null;
      most_stops: number | null;
      pooled: number;
      active: number;
      person_id: number;
      last_on: string | null;
      last_at: Date | null;
      last_says: string | null;
      version: number;
    };
    needs: 'site_id' | 'runs_at' | 'person_id';
    computed: never;
  };
  demand_mark: {
    row: {
      id: number;
      name: string;
      item_id: number | null;
      class: string | null;
      site_id: number | null;
      from_week: number;
      to_week: number;
      lift_percent: number | null;
      version: number;
    };
    needs: 'name' | 'from_week' | 'to_week';
    computed: never;
  };
  demand_read: {
    row: { site_id: number; through_week: number; read_on: string };
    needs: 'site_id' | 'through_week' | 'read_on';
    computed: never;
  };
  demand_week: {
    row: { site_id: number; item_id: number; week: number; ordered_units: number; given_units: number | null };
    needs: 'site_id' | 'item_id' | 'week';
    computed: never;
  };
  departure: {
    row: { id: number; site_id: number; carrier_id: number | null; name: string; leaves_at: string; closes_minutes: number };
    needs: 'site_id' | 'name' | 'leaves_at';
    computed: never;
  };
  device: {
    row: {
      id: number;
      name: string;
      site_id: number;
      token_hash: string;
      enrolled_at: Date;
      revoked_at: Date | null;
      printer_id: number | null;
    };
    needs: 'name' | 'site_id' | 'token_hash';
    computed: never;
  };
  device_enrolment: {
    row: { code_hash: string; site_id: number; name: string; expires_at: Date; used_at: Date | null };
    needs: 'code_hash' | 'site_id' | 'name' | 'expires_at';
    computed: never;
  };
  earmark: {
    row: { id: number; document: string; line_id: number; site_id: number; item_id: number; wanted_units: number; units: number };
    needs: 'document' | 'line_id' | 'site_id' | 'item_id' | 'wanted_units';
    computed: never;
  };
  extra_field: {
    row: { id: number; name: string; kind: string; choices: unknown; position: number };
    needs: 'name' | 'kind';
    computed: never;
  };
  feed_key: {
    row: { id: number; name: string; person_id: number; key_hash: string; made_at: Date; used_at: Date | null };
    needs: 'name' | 'person_id' | 'key_hash';
    computed: never;
  };
  floor_question: {
    row: {
      id: string;
      kind: string;
      command: unknown;
      site_id: number | null;
      document: string | null;
      person_id: number;
      device_id: number | null;
      made_at: Date;
      raised_at: Date;
      what: string;
      title: string;
      detail: string;
      answer: string | null;
      answered_by: number | null;
      answered_at: Date | null;
    };
    needs: 'id' | 'kind' | 'command' | 'person_id' | 'made_at' | 'what' | 'title' | 'detail';
    computed: never;
  };
  hand_over: {
    row: {
      code: string;
      carrier_id: number;
      site_id: number;
      person_id: number | null;
      driver: string | null;
      signature: string | null;
      at: Date;
    };
    needs: 'code' | 'carrier_id' | 'site_id';
    computed: never;
  };
  import_fault: {
    row: { import_id: string; n: number; field: string; value: string; reason: string };
    needs: 'import_id' | 'n' | 'field' | 'value' | 'reason';
    computed: never;
  };
  import_made: {
    row: { import_id: string; seq: number; target: string; before_image: unknown; after_image: unknown };
    needs: 'import_id' | 'seq' | 'target' | 'after_image';
    computed: never;
  };
  import_mapping: {
    row: { shape: string; kind: string; mapping: unknown; units: unknown; words: unknown };
    needs: 'shape' | 'kind' | 'mapping';
    computed: never;
  };
  import_row: {
    row: { import_id: string; n: number; cells: unknown; faulty: number };
    needs: 'import_id' | 'n' | 'cells';
    computed: never;
  };
  import_run: {
    row: {
      id: string;
      file_name: string;
      file_hash: string;
      kind: string;
      columns: unknown;
      mapping: unknown;
      state: string;
      good_only: number;
      total: number;
      done: number;
      faulty: number;
      made: number;
      changed: number;
      problem: string | null;
      person_id: number;
      command_id: string | null;
      leased_until: Date | null;
      created_at: Date;
      finished_at: Date | null;
      units: unknown;
      words: unknown;
    };
    needs: 'id' | 'file_name' | 'file_hash' | 'kind' | 'columns' | 'mapping' | 'total' | 'person_id';
    computed: never;
  };
  insert_rule: {
    row: {
      id: number;
      item_id: number;
      channel_id: number | null;
      units: number;
      from_value: string | null;
      first_only: number;
      version: number;
    };
    needs: 'item_id';
    computed: never;
  };
  inspection: {
    row: {
      id: number;
      code: string;
      site_id: number;
      arrival_id: number;
      item_id: number;
      why: string;
      checks: unknown;
      opened_at: Date;
      closed_at: Date | null;
      passed: number | null;
    };
    needs: 'code' | 'site_id' | 'arrival_id' | 'item_id' | 'why' | 'checks';
    computed: never;
  };
  inspection_answer: {
    row: { inspection_id: number; no: number; value: string; fulfilled: number; person_id: number; at: Date };
    needs: 'inspection_id' | 'no' | 'value' | 'fulfilled' | 'person_id';
    computed: never;
  };
  inspection_rule: {
    row: {
      id: number;
      item_id: number | null;
      supplier_id: number | null;
      kind: string;
      n: number;
      checklist_id: number | null;
      version: number;
    };
    needs: 'kind';
    computed: never;
  };
  inspection_verdict: {
    row: {
      id: number;
      inspection_id: number;
      lot_id: number;
      place_id: number;
      units: number;
      verdict: string;
      reason: string;
      return_code: string | null;
      person_id: number;
      at: Date;
      undone_at: Date | null;
    };
    needs: 'inspection_id' | 'place_id' | 'units' | 'verdict' | 'person_id';
    computed: never;
  };
  invoice: {
    row: {
      id: number;
      code: string;
      kind: string;
      site_id: number;
      customer_id: number | null;
      name: string;
      email: string;
      address_line: string;
      city: string;
      postcode: string;
      country: string;
      tax_number: string;
      currency: string;
      prices_hold_tax: number;
      issued_on: string;
      due_on: string;
      note: string;
      net: string;
      tax: string;
      gross: string;
      paid: string;
      open_amount: string | null;
      credits_id: number | null;
      reopens: number;
      posted_by: number;
      posted_at: Date;
      sent_at: Date | null;
      shown_currency: string | null;
      shown_rate: string | null;
    };
    needs: 'code' | 'kind' | 'site_id' | 'name' | 'currency' | 'issued_on' | 'due_on' | 'net' | 'tax' | 'gross' | 'posted_by';
    computed: 'open_amount';
  };
  invoice_line: {
    row: {
      id: number;
      invoice_id: number;
      line: number;
      order_line_id: number | null;
      credits_line_id: number | null;
      sku: string;
      name: string;
      units: number;
      factor: number;
      pack: string;
      price: string;
      discount_percent: string;
      amount: string;
      net: string;
      tax_code: string;
      tax_percent: string;
    };
    needs: 'invoice_id' | 'line' | 'name' | 'units' | 'price' | 'amount' | 'net';
    computed: never;
  };
  item: {
    row: {
      id: number;
      sku: string;
      name: string;
      class: string;
      picture: string;
      tracking: string;
      rotation: string;
      cost: string | null;
      never_holds_up: number;
      version: number;
      kind: string;
      labour: string | null;
      storage: string;
      tax_code: string | null;
      extra: unknown;
      lacks_barcode: number;
      lacks_cost: number;
      lacks_size: number;
      min_life_days: number | null;
      scan_each: number;
      keep_upright: number;
      fragile: number;
      serial_at_packing: number;
    };
    needs: 'sku' | 'name';
    computed: never;
  };
  item_part: {
    row: { item_id: number; part_item_id: number; units: number };
    needs: 'item_id' | 'part_item_id' | 'units';
    computed: never;
  };
  item_picture: {
    row: { item_id: number; type: string; mark: string; large: Buffer; thumb: Buffer };
    needs: 'item_id' | 'type' | 'mark' | 'large' | 'thumb';
    computed: never;
  };
  item_plan: {
    row: {
      id: number;
      site_id: number;
      item_id: number;
      due_at: Date | null;
      planned_on: string | null;
      made_from: string | null;
      method: string | null;
      week_mean: number;
      week_sd: number;
      pace: number | null;
      point_units: number | null;
      size_units: number;
      safety_units: number;
      fill: number;
      lead_days: number;
      lead_sd: number;
      review_days: number;
      service: number;
      unit_cost: string | null;
      supplier_id: number | null;
      weeks: unknown;
    };
    needs: 'site_id' | 'item_id';
    computed: never;
  };
  item_site: {
    row: {
      item_id: number;
      site_id: number;
      home_place_id: number | null;
      cost: string | null;
      reorder_point: number | null;
      order_up_to: number | null;
      refill_below: number | null;
      refill_up_to: number | null;
    };
    needs: 'item_id' | 'site_id';
    computed: never;
  };
  item_tag: { row: { item_id: number; tag: string }; needs: 'item_id' | 'tag'; computed: never };
  journal_export: {
    row: { id: number; code: string; through_on: string; entries: number; amount: string; made_by: number; made_at: Date };
    needs: 'code' | 'through_on' | 'entries' | 'amount' | 'made_by';
    computed: never;
  };
  label_design: {
    row: { id: number; name: string; subject: string; media: unknown; elements: unknown; version: number };
    needs: 'name' | 'subject' | 'media' | 'elements';
    computed: never;
  };
  letter: { row: { name: string; subject: string; body: string; version: number }; needs: 'name' | 'subject' | 'body'; computed: never };
  listing: {
    row: {
      id: number;
      channel_id: number;
      channel_sku: string;
      item_id: number;
      factor: number;
      keep_back: number;
      price: string;
      told_units: number | null;
      due: number;
      told_at: Date | null;
      believed_units: number | null;
      believed_at: Date | null;
    };
    needs: 'channel_id' | 'channel_sku' | 'item_id' | 'price';
    computed: never;
  };
  list_version: { row: { name: string; version: number }; needs: 'name' | 'version'; computed: never };
  lot: {
    row: { id: number; item_id: number; code: string; expires_on: string | null; first_received_on: string | null };
    needs: 'item_id' | 'code';
    computed: never;
  };
  lot_recall: {
    row: {
      id: number;
      lot_id: number;
      reason: string;
      person_id: number | null;
      held_at: Date;
      freed_by_id: number | null;
      freed_at: Date | null;
      told_at: Date | null;
      version: number;
      open_lot: number | null;
    };
    needs: 'lot_id' | 'reason';
    computed: 'open_lot';
  };
  movement: {
    row: {
      id: string;
      item_id: number;
      lot_id: number;
      stock_condition: string;
      to_condition: string | null;
      from_place_id: number;
      to_place_id: number;
      units: number;
      reverses_id: string | null;
      task: string;
      document: string | null;
      reason: string | null;
      how: string | null;
      person_id: number | null;
      device_id: number | null;
      command_id: string | null;
      device_at: Date | null;
      server_at: Date;
      unit_cost: string | null;
      moved_at: Date | null;
    };
    needs: 'item_id' | 'from_place_id' | 'to_place_id' | 'units' | 'task';
    computed: never;
  };
  number_series: { row: { name: string; next: number }; needs: 'name' | 'next'; computed: never };
  order_hold: {
    row: {
      id: number;
      order_id: number;
      kind: string;
      reason: string;
      owner_id: number | null;
      set_by: number | null;
      set_at: Date;
      cleared_by: number | null;
      cleared_at: Date | null;
      cleared_why: string | null;
    };
    needs: 'order_id' | 'kind' | 'reason';
    computed: never;
  };
  outbox: {
    row: {
      id: number;
      receiver: string;
      kind: string;
      payload: unknown;
      document: string | null;
      state: string;
      attempts: number;
      next_at: Date;
      last_error: string | null;
      created_at: Date;
      done_at: Date | null;
      site_id: number | null;
    };
    needs: 'receiver' | 'kind' | 'payload';
    computed: never;
  };
  own_account: { row: { account: string; number: string; name: string }; needs: 'account' | 'number'; computed: never };
  pack_unit: {
    row: {
      id: number;
      item_id: number;
      name: string;
      plural: string;
      factor: number;
      weight_g: number | null;
      length_mm: number | null;
      width_mm: number | null;
      height_mm: number | null;
    };
    needs: 'item_id' | 'name' | 'plural' | 'factor';
    computed: never;
  };
  parcel: {
    row: {
      id: number;
      code: string;
      order_id: number;
      number: number;
      place_id: number;
      state: string;
      carton: string | null;
      weight_g: number | null;
      carrier_id: number | null;
      service: string | null;
      price: string | null;
      tracking: string | null;
      label_pdf: Buffer | null;
      label_asked_at: Date | null;
      labelled_at: Date | null;
      handed_over_at: Date | null;
      hand_over: string | null;
      loaded_at: Date | null;
      booking: string | null;
      weight_why: string | null;
      travel: string | null;
      travel_at: Date | null;
    };
    needs: 'code' | 'order_id' | 'number' | 'place_id';
    computed: never;
  };
  parcel_event: {
    row: { id: number; parcel_id: number; what: string; note: string; at: Date; heard_at: Date };
    needs: 'parcel_id' | 'what' | 'at';
    computed: never;
  };
  parcel_label: {
    row: {
      id: number;
      parcel_id: number;
      carrier_id: number;
      service: string;
      reference: string;
      state: string;
      tracking: string | null;
      price: string | null;
      asked_at: Date;
    };
    needs: 'parcel_id' | 'carrier_id' | 'service' | 'reference';
    computed: never;
  };
  parcel_line: {
    row: { id: number; parcel_id: number; order_line_id: number; lot_id: number; units: number };
    needs: 'parcel_id' | 'order_line_id' | 'units';
    computed: never;
  };
  parcel_picture: {
    row: { parcel_id: number; type: string; picture: Buffer; at: Date };
    needs: 'parcel_id' | 'type' | 'picture';
    computed: never;
  };
  parcel_serial: {
    row: { id: number; parcel_id: number; order_line_id: number; item_id: number; serial: string };
    needs: 'parcel_id' | 'order_line_id' | 'item_id' | 'serial';
    computed: never;
  };
  parked_message: {
    row: {
      id: number;
      channel_id: number;
      came_at: Date;
      raw: string;
      hash: string;
      ref: string | null;
      why: string;
      state: string;
      settled_why: string | null;
      order_code: string | null;
      settled_by: number | null;
      settled_at: Date | null;
      version: number;
    };
    needs: 'channel_id' | 'raw' | 'hash' | 'why';
    computed: never;
  };
  payment: {
    row: {
      id: number;
      paid_on: string;
      amount: string;
      used: string;
      free_amount: string | null;
      says: string;
      bank_ref: string | null;
      noted_by: number;
      noted_at: Date;
      taken_back_at: Date | null;
      gained: string;
    };
    needs: 'paid_on' | 'amount' | 'noted_by';
    computed: 'free_amount';
  };
  payment_share: {
    row: { payment_id: number; invoice_id: number; amount: string };
    needs: 'payment_id' | 'invoice_id' | 'amount';
    computed: never;
  };
  period_close: {
    row: {
      id: number;
      through_on: string;
      closed_by: number;
      closed_at: Date;
      reopened_by: number | null;
      reopened_at: Date | null;
      reopened_why: string;
    };
    needs: 'through_on' | 'closed_by';
    computed: never;
  };
  person: {
    row: {
      id: number;
      name: string;
      email: string | null;
      password_hash: string | null;
      badge_code: string | null;
      pin_hash: string | null;
      duties: unknown;
      sees_costs: number;
      active: number;
      usual_site_id: number | null;
      usual_duty: string | null;
      version: number;
    };
    needs: 'name' | 'duties';
    computed: never;
  };
  person_change: {
    row: { person_id: number; email: string | null; duties: unknown; asked_by: number; asked_at: Date };
    needs: 'person_id' | 'asked_by';
    computed: never;
  };
  person_site: { row: { person_id: number; site_id: number }; needs: 'person_id' | 'site_id'; computed: never };
  person_token: {
    row: { token_hash: string; person_id: number; purpose: string; expires_at: Date; used_at: Date | null };
    needs: 'token_hash' | 'person_id' | 'purpose' | 'expires_at';
    computed: never;
  };
  place: {
    row: {
      id: number;
      site_id: number | null;
      parent_id: number | null;
      code: string;
      kind: string;
      pickable: number;
      blocked: number;
      walk_order: number;
      x_m: string | null;
      y_m: string | null;
      version: number;
      aisle_id: number | null;
      along_m: string | null;
      fixed_order: number;
      holds_ml: number | null;
      holds_g: number | null;
      name: string;
      rule: string;
      wall_columns: number | null;
    };
    needs: 'code' | 'kind';
    computed: never;
  };
  plan_shape: {
    row: { id: number; site_id: number; kind: string; label: string; x_m: string; y_m: string; to_x_m: string; to_y_m: string };
    needs: 'site_id' | 'kind' | 'x_m' | 'y_m' | 'to_x_m' | 'to_y_m';
    computed: never;
  };
  preference: { row: { person_id: number; name: string; value: unknown }; needs: 'person_id' | 'name' | 'value'; computed: never };
  printer: {
    row: { id: number; name: string; site_id: number; address: string; version: number };
    needs: 'name' | 'site_id' | 'address';
    computed: never;
  };
  print_job: {
    row: { id: number; printer_id: number; title: string; labels: number; pdf: Buffer; person_id: number | null; created_at: Date };
    needs: 'printer_id' | 'title' | 'labels' | 'pdf';
    computed: never;
  };
  purchase_order: {
    row: {
      id: number;
      code: string;
      supplier_id: number;
      site_id: number;
      state: string;
      currency: string;
      expected_on: string | null;
      note: string;
      created_by: number;
      created_at: Date;
      placed_at: Date | null;
      placed_by: number | null;
      first_received_at: Date | null;
      version: number;
      answer: string;
      answer_note: string;
      door_id: number | null;
    };
    needs: 'code' | 'supplier_id' | 'site_id' | 'created_by';
    computed: never;
  };
  purchase_order_change: {
    row: {
      id: number;
      order_id: number;
      line: number | null;
      what: string;
      was: string;
      becomes: string;
      why: string;
      person_id: number;
      at: Date;
    };
    needs: 'order_id' | 'what' | 'was' | 'becomes' | 'person_id';
    computed: never;
  };
  purchase_order_charge: {
    row: { id: number; order_id: number; position: number; says: string; amount: string; shared_by: string };
    needs: 'order_id' | 'position' | 'says' | 'amount';
    computed: never;
  };
  purchase_order_file: {
    row: { id: number; order_id: number; name: string; bytes: number; content: Buffer; person_id: number; at: Date };
    needs: 'order_id' | 'name' | 'bytes' | 'content' | 'person_id';
    computed: never;
  };
  purchase_order_line: {
    row: {
      id: number;
      order_id: number;
      line: number;
      item_id: number;
      pack_unit_id: number;
      packs: number;
      factor: number;
      price: string;
      received_units: number;
      expected_on: string | null;
      closed_units: number;
      open_units: number | null;
      answer: string | null;
      answer_packs: number | null;
      answer_price: string | null;
      answer_on: string | null;
      answer_note: string;
    };
    needs: 'order_id' | 'line' | 'item_id' | 'pack_unit_id' | 'packs' | 'factor' | 'price';
    computed: 'open_units';
  };
  receipt: {
    row: {
      id: string;
      arrival_id: number;
      order_line_id: number | null;
      item_id: number;
      lot_id: number;
      units: number;
      taken_as: string;
      stock_condition: string;
      reason: string | null;
      movement_id: string;
      person_id: number;
      at: Date;
      undone_at: Date | null;
    };
    needs: 'arrival_id' | 'item_id' | 'units' | 'taken_as' | 'stock_condition' | 'movement_id' | 'person_id';
    computed: never;
  };
  receipt_picture: {
    row: { receipt_id: string; type: string; picture: Buffer };
    needs: 'receipt_id' | 'type' | 'picture';
    computed: never;
  };
  received_pallet: { row: { arrival_id: number; sscc: string }; needs: 'arrival_id' | 'sscc'; computed: never };
  reservation: {
    row: {
      id: number;
      order_line_id: number;
      site_id: number;
      item_id: number;
      place_id: number | null;
      lot_id: number;
      units: number;
      place_key: number | null;
    };
    needs: 'order_line_id' | 'site_id' | 'item_id' | 'units';
    computed: 'place_key';
  };
  return_credit: { row: { return_id: number; invoice_id: number }; needs: 'return_id' | 'invoice_id'; computed: never };
  return_refund: {
    row: { return_id: number; order_line_id: number; units: number; unbilled: number };
    needs: 'return_id' | 'order_line_id' | 'units';
    computed: never;
  };
  round: {
    row: {
      id: number;
      code: string;
      site_id: number;
      state: string;
      picker_id: number | null;
      sent_to_id: number | null;
      created_at: Date;
      begun_at: Date | null;
      finished_at: Date | null;
      pooled: number;
      cart_id: number | null;
    };
    needs: 'code' | 'site_id';
    computed: never;
  };
  round_order: { row: { round_id: number; order_id: number }; needs: 'round_id' | 'order_id'; computed: never };
  round_stop: {
    row: {
      id: number;
      round_id: number;
      order_line_id: number;
      item_id: number;
      lot_id: number;
      place_id: number;
      units: number;
      picked_units: number;
      short_units: number;
      person_id: number | null;
    };
    needs: 'round_id' | 'order_line_id' | 'item_id' | 'place_id' | 'units';
    computed: never;
  };
  sales_order: {
    row: {
      id: number;
      code: string;
      channel_id: number;
      channel_ref: string;
      site_id: number;
      state: string;
      hold_reason: string | null;
      customer: string;
      email: string;
      address_line: string;
      city: string;
      postcode: string;
      country: string;
      priority: number;
      placed_at: Date;
      promised_at: Date;
      speed: string;
      note_packer: string | null;
      note_seen_by: number | null;
      note_picker: string | null;
      shipped_at: Date | null;
      version: number;
      cancelled_at: Date | null;
      customer_id: number | null;
      phone: string;
      whole_only: number;
      quoted: number;
      quoted_until: string | null;
      cancelled_why: string | null;
      channel_said: string | null;
      channel_revision: string | null;
      parked_at: Date | null;
      parked_why: string | null;
    };
    needs: 'code' | 'channel_id' | 'channel_ref' | 'site_id' | 'customer' | 'placed_at' | 'promised_at';
    computed: never;
  };
  sales_order_change: {
    row: {
      id: number;
      order_id: number;
      line: number | null;
      what: string;
      was: string;
      becomes: string;
      why: string;
      person_id: number | null;
      at: Date;
    };
    needs: 'order_id' | 'what' | 'was' | 'becomes';
    computed: never;
  };
  sales_order_line: {
    row: {
      id: number;
      order_id: number;
      line: number;
      channel_sku: string;
      item_id: number | null;
      quantity: number;
      units: number;
      price: string;
      picked_units: number;
      packed_units: number;
      shipped_units: number;
      factor: number;
      kit_line: number | null;
      left_out: number;
      along: number;
    };
    needs: 'order_id' | 'line' | 'channel_sku' | 'quantity' | 'units';
    computed: never;
  };
  scale: {
    row: { id: number; site_id: number; name: string; address: string; version: number };
    needs: 'site_id' | 'name' | 'address';
    computed: never;
  };
  session: {
    row: { token_hash: string; person_id: number; device_id: number | null; created_at: Date; expires_at: Date; ended_at: Date | null };
    needs: 'token_hash' | 'person_id' | 'expires_at';
    computed: never;
  };
  setting: { row: { name: string; value: unknown; changed_at: Date }; needs: 'name' | 'value'; computed: never };
  sign_in_try: { row: { who: string; tries: number; last_at: Date; locked_until: Date | null }; needs: 'who'; computed: never };
  site: {
    row: {
      id: number;
      code: string;
      name: string;
      time_zone: string;
      width_m: string;
      depth_m: string;
      version: number;
      working_days: string;
      picks: number;
      address_line: string;
      city: string;
      postcode: string;
      country: string;
    };
    needs: 'code' | 'name';
    computed: never;
  };
  site_stock: {
    row: { site_id: number; item_id: number; on_hand: number; held: number; reserved: number };
    needs: 'site_id' | 'item_id';
    computed: never;
  };
  spot_count: {
    row: {
      id: number;
      site_id: number;
      place_id: number;
      item_id: number;
      lot_id: number;
      why: string;
      document: string | null;
      raised_by_id: number | null;
      raised_at: Date;
      state: string;
      held_units: number;
      counted_units: number | null;
      booked_units: number | null;
      counted_by_id: number | null;
      counted_at: Date | null;
      settled_by_id: number | null;
      settled_at: Date | null;
      version: number;
      open_spot: string | null;
      counted_command: string | null;
    };
    needs: 'site_id' | 'place_id' | 'item_id' | 'why';
    computed: 'open_spot';
  };
  stock_count: {
    row: {
      id: number;
      code: string;
      site_id: number;
      title: string;
      whole_bins: number;
      blind: number;
      scan_each: number;
      state: string;
      made_by_id: number | null;
      made_at: Date;
      opened_at: Date | null;
      after_movement: string | null;
      reviewed_at: Date | null;
      ended_at: Date | null;
      version: number;
    };
    needs: 'code' | 'site_id' | 'title';
    computed: never;
  };
  supplier: {
    row: {
      id: number;
      code: string;
      name: string;
      email: string;
      phone: string;
      currency: string;
      lead_days: number;
      version: number;
      terms: string;
      working_days: string;
      least_value: string | null;
      least_units: number | null;
      least_pallets: number | null;
      document_key: string | null;
      order_days: string;
    };
    needs: 'code' | 'name';
    computed: never;
  };
  supplier_contact: {
    row: { id: number; supplier_id: number; position: number; name: string; role: string; email: string; phone: string };
    needs: 'supplier_id' | 'position' | 'name';
    computed: never;
  };
  supplier_document: {
    row: {
      id: number;
      supplier_id: number;
      kind: string;
      ref: string;
      concerns: string;
      says: string;
      document: Buffer;
      person_id: number | null;
      at: Date;
    };
    needs: 'supplier_id' | 'kind' | 'ref' | 'concerns' | 'says' | 'document';
    computed: never;
  };
  supplier_item: {
    row: { supplier_id: number; item_id: number; pack_unit_id: number; supplier_sku: string; price: string };
    needs: 'supplier_id' | 'item_id' | 'pack_unit_id' | 'price';
    computed: never;
  };
  supplier_price_break: {
    row: { supplier_id: number; item_id: number; from_packs: number; price: string };
    needs: 'supplier_id' | 'item_id' | 'from_packs' | 'price';
    computed: never;
  };
  supplier_return: {
    row: {
      id: number;
      code: string;
      supplier_id: number;
      site_id: number;
      state: string;
      reason: string;
      currency: string;
      expected: string;
      credit_ref: string | null;
      credited: string | null;
      sent_by: number;
      sent_at: Date;
      credited_by: number | null;
      credited_at: Date | null;
      version: number;
    };
    needs: 'code' | 'supplier_id' | 'site_id' | 'reason' | 'currency' | 'expected' | 'sent_by';
    computed: never;
  };
  supplier_return_line: {
    row: {
      id: number;
      return_id: number;
      line: number;
      item_id: number;
      lot_id: number;
      stock_condition: string;
      units: number;
      order_line_id: number | null;
      expected: string;
      movement_id: string;
    };
    needs: 'return_id' | 'line' | 'item_id' | 'stock_condition' | 'units' | 'expected' | 'movement_id';
    computed: never;
  };
  tax_rate: { row: { code: string; name: string; percent: string }; needs: 'code' | 'name' | 'percent'; computed: never };
  timetable: {
    row: { what: string; every: string; person_id: number; last_on: string; last_at: Date | null; last_says: string; version: number };
    needs: 'what' | 'every' | 'person_id' | 'last_on';
    computed: never;
  };
  tote_use: {
    row: {
      id: number;
      tote_id: number;
      round_id: number;
      order_id: number | null;
      begun_at: Date;
      set_down_at: Date | null;
      ended_at: Date | null;
      open_tote: number | null;
    };
    needs: 'tote_id' | 'round_id';
    computed: 'open_tote';
  };
  transfer: {
    row: {
      id: number;
      code: string;
      from_site_id: number;
      to_site_id: number;
      state: string;
      place_id: number;
      note: string;
      expected_on: string | null;
      carrier: string;
      tracking: string;
      made_by_id: number | null;
      made_at: Date;
      sent_by_id: number | null;
      sent_at: Date | null;
      received_at: Date | null;
      version: number;
      order_id: number | null;
    };
    needs: 'code' | 'from_site_id' | 'to_site_id' | 'place_id';
    computed: never;
  };
  transfer_goods: {
    row: {
      id: number;
      transfer_id: number;
      item_id: number;
      lot_id: number;
      units: number;
      received_units: number;
      damaged_units: number;
      lost_units: number;
      owes: string | null;
      settled_note: string | null;
      movement_id: string;
      value: string;
    };
    needs: 'transfer_id' | 'item_id' | 'units' | 'movement_id' | 'value';
    computed: never;
  };
  transfer_line: {
    row: { id: number; transfer_id: number; line: number; item_id: number; units: number; gathered_units: number };
    needs: 'transfer_id' | 'line' | 'item_id' | 'units';
    computed: never;
  };
  transfer_parcel: {
    row: {
      id: number;
      transfer_id: number;
      number: number;
      code: string;
      state: string;
      weight_g: number;
      carton: string | null;
      carrier_id: number | null;
      service: string | null;
      tracking: string | null;
      price: string | null;
      label_pdf: Buffer | null;
      booking: string | null;
      here_at: Date | null;
    };
    needs: 'transfer_id' | 'number' | 'code' | 'state' | 'weight_g';
    computed: never;
  };
  unmatched_code: {
    row: {
      id: number;
      site_id: number;
      code: string;
      times: number;
      first_at: Date;
      last_at: Date;
      last_by: number;
      document: string | null;
      aside_at: Date | null;
      aside_by: number | null;
    };
    needs: 'site_id' | 'code' | 'last_by';
    computed: never;
  };
  unread_document: {
    row: {
      id: number;
      supplier_id: number;
      hash: string;
      document: Buffer;
      why: string;
      came_at: Date;
      state: string;
      settled_by: number | null;
      settled_at: Date | null;
      settled_why: string | null;
      version: number;
    };
    needs: 'supplier_id' | 'hash' | 'document' | 'why';
    computed: never;
  };
  value_entry: {
    row: {
      id: string;
      at: Date;
      item_id: number | null;
      movement_id: string | null;
      layer_id: string | null;
      bill_id: number | null;
      document: string | null;
      debit: string;
      credit: string;
      amount: string;
      invoice_id: number | null;
      payment_id: number | null;
      export_id: number | null;
    };
    needs: 'debit' | 'credit' | 'amount';
    computed: never;
  };
}
