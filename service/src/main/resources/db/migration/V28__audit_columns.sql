-- What entries of the trail are looked for by. Each is read out of the entry itself, so none of them can say otherwise.
alter table audit_entry
  add column at_second char(19) as (left(json_value(body, '$.at'), 19)) virtual,
  add column who varchar(160) as (left(json_value(body, '$.who'), 160)) virtual,
  add column what varchar(160) as (left(json_value(body, '$.what'), 160)) virtual,
  add column subject varchar(400) as (left(json_value(body, '$.subject'), 400)) virtual,
  add column component varchar(160) as
    (left(substring_index(substring_index(json_value(body, '$.subject'), ' ', 1), '#', 1), 160)) virtual,
  add column environment varchar(160) as (left(json_value(body, '$.where'), 160)) virtual,
  add column deployment varchar(20) as (left(json_value(body, '$.details.deployment'), 20)) virtual,
  add key (at_second), add key (who), add key (what), add key (subject), add key (component), add key (environment),
  add key (deployment);
