# frozen_string_literal: true

module Server
  # Taking in everything beneath a folder, with its progress.
  class Intake < Record
    belongs_to :project
    belongs_to :media_root

    def to_h = {id:, path:, root: media_root_id, status:, found:, done:, refused:, message:}
  end
end
