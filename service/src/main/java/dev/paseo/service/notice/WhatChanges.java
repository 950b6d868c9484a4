package dev.paseo.service.notice;

import java.util.List;

/** Says, a line each, what changes with what a notice is about; asked when a mail is made, outside any transaction. */
public interface WhatChanges {

    /** @param path where the notice leads to; nothing where there is nothing to say of it */
    List<String> at(String path);
}
