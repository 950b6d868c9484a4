-- What the rows must never say, said by the database too: references that were missing, and that there is one open hold of
-- a place, one closure of an environment, one version on a host, one that is live in a place. Secrets and role grants keep
-- 0 where they are of no component or environment, and so refer to nothing. Where there were two, the newer one stays open.

update hold o join hold n on n.place_id = o.place_id and n.lifted_at is null and n.id > o.id
  set o.lifted_at = n.at where o.lifted_at is null;
update closure o join closure n on n.environment_id = o.environment_id and n.lifted_at is null and n.id > o.id
  set o.lifted_at = n.at where o.lifted_at is null;
update live_interval o join live_interval n on n.host_id = o.host_id and n.component_id = o.component_id and n.to_at is null and n.id > o.id
  set o.to_at = n.from_at where o.to_at is null;
update live_stretch o join live_stretch n on n.place_id = o.place_id and n.to_at is null and n.id > o.id
  set o.to_at = n.from_at where o.to_at is null;

alter table hold add column open_place bigint as (if(lifted_at is null, place_id, null)) virtual, add unique one_open (open_place);
alter table closure add column open_environment bigint as (if(lifted_at is null, environment_id, null)) virtual,
  add unique one_open (open_environment);
alter table live_interval add column open_host bigint as (if(to_at is null, host_id, null)) virtual,
  add unique one_open (open_host, component_id);
alter table live_stretch add column open_place bigint as (if(to_at is null, place_id, null)) virtual, add unique one_open (open_place);

alter table place add foreign key (live_deployment_id) references deployment (id);
alter table hold add foreign key (lifted_by) references account (id);
alter table closure add foreign key (lifted_by) references account (id);
alter table evidence add foreign key (environment_id) references environment (id),
  add foreign key (deployment_id) references deployment (id);
delete r from host_report r left join deployment d on d.id = r.deployment_id where d.id is null;
alter table host_report add foreign key (deployment_id) references deployment (id);
