-- A year of promotions is added up at a glance: what a lead time comes to stands in an index, all that is added up of it
-- in one column (environment in eight bytes; then in four each: the day, for how long it was live until it was gone
-- back from, ffffffff for never, and the parts in the order of core's TimePart, 136 years at most), and what was
-- waited for has beside it what it is asked by.
alter table lead_time
  add column seconds bigint as (committed + turn + agents + building + before_it + people + closed + held + queue
    + waiting_time + deploying) stored,
  add column packed varbinary(60) as (unhex(concat(
    lpad(hex(environment_id), 16, '0'), lpad(hex(to_days(live_at)), 8, '0'),
    lpad(hex(least(coalesce(bad_for, 4294967295), 4294967295)), 8, '0'),
    lpad(hex(least(committed, 4294967295)), 8, '0'),
    lpad(hex(least(turn, 4294967295)), 8, '0'),
    lpad(hex(least(agents, 4294967295)), 8, '0'),
    lpad(hex(least(building, 4294967295)), 8, '0'),
    lpad(hex(least(before_it, 4294967295)), 8, '0'),
    lpad(hex(least(people, 4294967295)), 8, '0'),
    lpad(hex(least(closed, 4294967295)), 8, '0'),
    lpad(hex(least(held, 4294967295)), 8, '0'),
    lpad(hex(least(queue, 4294967295)), 8, '0'),
    lpad(hex(least(waiting_time, 4294967295)), 8, '0'),
    lpad(hex(least(deploying, 4294967295)), 8, '0')))) stored,
  add key went (live_at, seconds, environment_id, component_id),
  add key went_into (environment_id, live_at, seconds),
  add key went_of (component_id, live_at, seconds);
alter table lead_time drop key live_at, drop key component_id, drop key environment_id;
alter table lead_time_people add column component_id bigint null, add column environment_id bigint null,
  add column live_at datetime(6) null;
update lead_time_people p join lead_time w on w.deployment_id = p.deployment_id
  set p.component_id = w.component_id, p.environment_id = w.environment_id, p.live_at = w.live_at;
alter table lead_time_people modify component_id bigint not null, modify environment_id bigint not null,
  modify live_at datetime(6) not null, add key (live_at), add key (component_id, live_at),
  add key (environment_id, live_at), add foreign key (component_id) references component (id),
  add foreign key (environment_id) references environment (id);
