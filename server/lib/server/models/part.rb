# frozen_string_literal: true

module Server
  # Some neighbouring frames of what an order delivers, rendered by one worker for all its
  # outputs. found: what was found out of them, see Mordant::Deliver::Findings.
  class Part < Record
    FRAMES = 24
    QUICK = 96 # where ffmpeg is likely to draw them

    belongs_to :order
    belongs_to :shot, optional: true

    scope :of, ->(order, shot_id) { where(order:, shot_id:) }

    def range = first...(first + frames)
  end
end
