# frozen_string_literal: true

module Server
  # One file or sequence of an order, and how far it is.
  class Output < Record
    belongs_to :order
    belongs_to :shot, optional: true

    def kind_class = Mordant::Deliver::Kind.fetch(kind)

    # @return [String] absolute
    def file = File.join(File.realpath(Settings.delivery), path)

    def over? = %w[done cancelled failed].include?(status)

    # Stops it: at once when it waits, at its next frame when it runs.
    def cancel
      with_lock do
        next if over?

        (status == "waiting") ? update!(status: "cancelled", finished_at: Time.now) : update!(cancelling: true)
      end
    end

    def to_h
      {id:, order: order_id, shot: shot_id, kind:, label: kind_class.label, about: kind_class.about, path:, status:, frames:, done:,
       message:, cancelling:, seconds: started_at && ((finished_at || Time.now) - started_at).round(1)}
    end
  end
end
