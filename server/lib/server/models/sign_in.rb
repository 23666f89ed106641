# frozen_string_literal: true

require "digest"

module Server
  # A browser that somebody is signed in with. Of the secret in its cookie only a digest is kept here.
  class SignIn < Record
    COOKIE = "mordant_person"
    IDLE = 14 * 24 * 3600 # seconds without a sign of it, after which it has ended
    LONGEST = 60 * 24 * 3600 # seconds in all
    MOST = 40 # browsers of one person; with more the one not seen longest is signed out
    SEEN_EVERY = 60 # seconds, as often as that is written down

    belongs_to :person

    scope :live, -> { joins(:person).where(people: {ended: false}).where("sign_ins.seen_at > ? AND sign_ins.created_at > ?", Time.now - IDLE, Time.now - LONGEST) }

    # @return [Array(SignIn, String)] and what its cookie holds
    def self.begin(person, address:, browser:)
      secret = SecureRandom.urlsafe_base64(32)
      where(person:).where.not(id: live.where(person:).order(seen_at: :desc).limit(MOST - 1).select(:id)).delete_all
      [create!(person:, mark: mark_of(secret), address:, browser: browser.to_s.scrub("?")[0, 200], seen_at: Time.now), Guard.signed(secret)]
    end

    # @param env [Hash] of a request
    # @return [SignIn, nil]
    def self.of(env)
      secret = secret_of(env) or return
      found = live.includes(:person).find_by(mark: mark_of(secret)) or return
      found.update_columns(seen_at: Time.now) if Time.now - found.seen_at > SEEN_EVERY
      found
    end

    # Without looking whether it has ended; for what must not wait for the database.
    #
    # @return [String, nil] of its cookie, if this server has signed it
    def self.secret_of(env)
      value = Rack::Utils.parse_cookies(env)[COOKIE].to_s
      secret = value.split(".", 2).first.to_s
      secret if !secret.empty? && Rack::Utils.secure_compare(value, Guard.signed(secret))
    rescue ArgumentError
      nil # bytes that are no text
    end

    def self.mark_of(secret) = Digest::SHA256.hexdigest(secret)

    def to_h = {id:, person: person_id, name: person.name, address:, browser:, since: created_at.iso8601, seen: seen_at.iso8601, here: id == Present.sign_in&.id}
  end
end
