-- What happened in an environment is found without asking each of its places.
alter table live_stretch add column environment_id bigint null;
update live_stretch s join place p on p.id = s.place_id set s.environment_id = p.environment_id;
alter table live_stretch modify environment_id bigint not null, add foreign key (environment_id) references environment (id),
  add key (environment_id, from_at);
alter table hold add column environment_id bigint null;
update hold t join place p on p.id = t.place_id set t.environment_id = p.environment_id;
alter table hold modify environment_id bigint not null, add foreign key (environment_id) references environment (id),
  add key (environment_id, at), add key (environment_id, lifted_at);
