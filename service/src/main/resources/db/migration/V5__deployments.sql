-- Recipes say more: what older versions say is put where it is read now, beside where it was.
update version set recipe = json_set(recipe,
    '$.recipe.parts', json_object('onceBefore', json_array(), 'onEachHost', json_extract(recipe, '$.recipe.onEachHost'), 'onceAfter', json_array(),
      'traffic', json_array(), 'removal', json_extract(recipe, '$.recipe.removal')),
    '$.recipe.strategy', json_object('kind', 'TOGETHER', 'batch', 1, 'pause', 'PT0S', 'reversed', false, 'mayFail', 0, 'shares', json_array(), 'oldSideStays', 'PT0S'),
    '$.recipe.installed', json_object(), '$.recipe.requires', json_object(), '$.recipe.whole', json_array(),
    '$.recipe.afterwards', json_object('keepChecking', null, 'tests', json_object()))
  where json_exists(recipe, '$.recipe.onEachHost') and not json_exists(recipe, '$.recipe.parts');

-- Places: the side that has the traffic, and the host whose agent does what is done once for the place.
alter table place add column live_side varchar(63) null, add column acting_host varchar(63) null;
alter table place_host add column side varchar(63) null;
alter table work modify column kind varchar(20) not null;
-- Reports of tests of what is live belong to a deployment.
alter table evidence add column deployment_id bigint null;
alter table hold add column lifted_by bigint null, add key (place_id, lifted_at);
create table closure (
  id bigint auto_increment primary key,
  environment_id bigint not null references environment (id),
  reason varchar(1000) not null,
  set_by bigint not null references account (id),
  at datetime(6) not null,
  until_at datetime(6) null,
  lifted_at datetime(6) null,
  lifted_by bigint null,
  key (environment_id, lifted_at)
);
alter table version add column blocked_by bigint null, add column block_reason varchar(1000) null;
-- An emergency is looked at afterwards.
create table review (
  deployment_id bigint primary key references deployment (id),
  due_at datetime(6) not null,
  done_at datetime(6) null,
  done_by bigint null references account (id),
  comment varchar(2000) null,
  key (done_at, due_at)
);

-- Hosts: in maintenance they are drained and not counted. Those without an agent are reached by the one that serves them.
alter table host add column maintenance varchar(1000) null, add column maintenance_since datetime(6) null,
  add column served_by bigint null references agent (id), add column disk_free bigint null, add column disk_total bigint null;
-- What a host says about one component on it.
create table host_report (
  place_id bigint not null references place (id),
  host_id bigint not null references host (id),
  deployment_id bigint not null,
  checked_at datetime(6) not null,
  failures int not null default 0,
  failing varchar(1000) null,
  unhealthy_since datetime(6) null,
  drift varchar(2000) null,
  drifted_since datetime(6) null,
  primary key (place_id, host_id)
);
-- The newest of an interval's end is asked for at a past moment.
alter table live_interval add key (component_id, from_at);
alter table deployment add key (place_id, live_at, ended_at);
-- What a place had live from when to when: whereabouts of a past moment is one range of it.
create table live_stretch (
  id bigint auto_increment primary key,
  place_id bigint not null references place (id),
  deployment_id bigint not null references deployment (id),
  version_id bigint not null references version (id),
  from_at datetime(6) not null,
  to_at datetime(6) null,
  key (place_id, from_at), key (to_at, place_id)
);
insert into live_stretch (place_id, deployment_id, version_id, from_at, to_at)
  select d.place_id, d.id, d.version_id, d.live_at, if(d.status = 'live', null, d.ended_at) from deployment d
  where d.live_at is not null and d.status in ('live', 'replaced') order by d.live_at;

-- Secrets of one host.
alter table secret add column host_id bigint not null default 0, drop key name, add unique (name, component_id, environment_id, host_id);

-- Preview environments: made from a template for a branch of a component. A template is an environment too, without
-- places: what is set for it is set for all of its previews.
create table preview_template (
  environment_id bigint primary key references environment (id),
  body json not null,
  set_by bigint not null references account (id),
  at datetime(6) not null
);
create table preview (
  environment_id bigint primary key references environment (id),
  template_id bigint not null references preview_template (environment_id),
  component_id bigint not null references component (id),
  branch varchar(200) not null,
  owner varchar(200) not null,
  port int not null,
  created_at datetime(6) not null,
  pushed_at datetime(6) not null,
  removing varchar(1000) null,
  tried_at datetime(6) null,
  removed_at datetime(6) null,
  unique (component_id, branch),
  key (removed_at)
);

grant select, insert, update, delete on closure to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on review to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on host_report to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on live_stretch to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on preview to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on preview_template to '${service_user}'@'127.0.0.1';
