# frozen_string_literal: true

module Server
  # A range of a cut that is made ready ahead of playing it, by as many workers as there are: finished pictures, or frames whose noise
  # is taken away.
  class RangeRender < Record
    CHUNK = 12 # frames a job
    LIVE = %w[waiting running].freeze
    WHAT = %w[pictures noise].freeze

    belongs_to :cut

    # @param screen [Hash] what it is drawn on, as a picture's request says
    # @param what [String] of WHAT
    # @return [RangeRender] queued
    # @raise [Mordant::ParameterError]
    def self.order(cut, first:, count:, screen:, what: WHAT.first)
      raise Mordant::ParameterError.new(path: "what", expected: WHAT.join(" or "), found: what) unless WHAT.include?(what)

      length = cut.timeline.length
      unless first >= 0 && count.positive? && first + count <= length
        raise Mordant::ParameterError.new(path: "first", expected: "a range within the #{length} frames of the cut", found: [first, count])
      end
      transaction do
        where(cut:, what:, status: LIVE).update_all(status: "cancelled")
        create!(cut:, first:, count:, screen:, what:).tap do |render|
          (first...(first + count)).each_slice(CHUNK) { |frames| RangeJob.enqueue(render.id, frames.first, frames.size) }
        end
      end
    end

    def live? = LIVE.include?(status)

    def cancel = self.class.where(id:, status: LIVE).update_all(status: "cancelled")

    # One frame more is there.
    def count_one
      self.class.where(id:, status: LIVE).update_all("done = done + 1, status = CASE WHEN done + 1 = count THEN 'done' ELSE 'running' END")
    end

    def to_h = {id:, cut: cut_id, what:, first:, count:, done:, status:, message:}
  end
end
